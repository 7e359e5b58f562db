import { useId } from "react";
import { useTranslation } from "react-i18next";
import type { Plan, Sheet, Unit } from "../../api/client";
import { usePointed } from "../../piece/usePointed";
import { useSize } from "../useSize";
import { useUnit } from "../useUnit";
import { lengthText, rulerTicks } from "../length";
import {
  deepest,
  lowestAt,
  hangs,
  heightOf,
  lineAt,
  ruleScale,
  ruleStep,
  strandsAt,
  strokesAt,
  type RuleStep,
} from "../../piece/rule";
import { eachPlaced, flipped, shapesOf, type Placed } from "./frame";
import { Shape } from "./Shape";
import { toneOf } from "./tones";

const EDGE = 30;
const HIGH = 140;
// What is drawn lies between the ruler and the labels.
const RULER_Y = 37;
const LABELS_Y = 108;
const ROOM = LABELS_Y - RULER_Y - 3;

type Rule = Plan["drawings"]["rule"];
type Span = Rule["spans"][number];

interface Props {
  plan: Plan | null;
  /** What is drawn is nothing, or from before. */
  faded: boolean;
}

/** The ruler across the top: the piece straight, at one scale both ways, and the band of doubt. */
export function TheRule({ plan, faded }: Props) {
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const unit = useUnit();
  const { lines, point } = usePointed();
  const rule = plan?.drawings.rule;
  const sheet = plan?.drawings.sheets.find((one) => one.id === "sequence");
  const length = upTo(rule?.length_mm ?? 250, unit);
  const reach = sheet ? heightOf(sheet.placed ?? [], shapesOf(sheet)) : { up: 0, down: 0 };
  const scale = ruleScale(width - 2 * EDGE, length, ROOM, reach.up + reach.down);
  const line = lineAt(RULER_Y, LABELS_Y, reach, scale);
  const step = sheet ? ruleStep(scale) : "rows";
  const x = (mm: number) => EDGE + mm * scale;
  const band = rule?.band;
  const spans = (rule?.spans ?? []).filter((span) => span.to_mm > span.from_mm);
  return (
    <section
      aria-label={t("rule.name")}
      className={`border-y border-ink bg-panel ${faded ? "opacity-45" : ""}`}
    >
      <div ref={ref} data-rule className="relative h-[140px] overflow-hidden">
        {width > 0 && (
          <svg width={width} height={HIGH} aria-hidden="true" data-drawn="rule" data-step={step}>
            <Ruler to={(width - 2 * EDGE) / scale} unit={unit} scale={scale} />
            {band && (
              <rect
                x={x(band.value - band.plus_minus)}
                width={Math.max(2, 2 * band.plus_minus * scale)}
                y={RULER_Y}
                height={LABELS_Y - RULER_Y}
                fill="var(--color-accent)"
                fillOpacity={0.28}
              />
            )}
            {step !== "outlines" &&
              spans.map((span) => (
                <Bar
                  key={span.id}
                  {...{ span, scale, step, rule, line }}
                  colour={plan?.colour}
                  drawn={sheet !== undefined}
                />
              ))}
            {sheet && step !== "rows" && plan && (
              <Outlines {...{ sheet, scale, step, line }} colour={plan.colour} />
            )}
            {rule && <Strands {...{ rule, x, line }} />}
            {rule?.mirror_mm != null && <Mirror at={x(rule.mirror_mm)} says={t("rule.mirrored")} />}
            {(rule?.ticks_mm ?? []).map((at, i) => (
              <line
                key={i}
                x1={x(at)}
                x2={x(at)}
                y1={sheet ? RULER_Y : line - 15}
                y2={sheet ? RULER_Y + 8 : line + 15}
                stroke="var(--color-ink)"
                strokeWidth={1.5}
              />
            ))}
            {spans.map((span) => span.rows && <Rows key={span.id} rows={span.rows} x={x} />)}
            {spans.map((span) => (
              <rect
                key={span.id}
                x={x(span.from_mm)}
                width={Math.max((span.to_mm - span.from_mm) * scale, 1)}
                y={RULER_Y}
                height={LABELS_Y - RULER_Y}
                fill="transparent"
                stroke={touches(span, lines) ? "var(--color-ink)" : "none"}
                strokeWidth={3}
                onPointerEnter={() => point(span.ledger ?? [])}
                onPointerLeave={() => point([])}
              />
            ))}
          </svg>
        )}
        {rule && <Notes rule={rule} step={sheet ? step : undefined} />}
        {width > 0 &&
          apart(named(rule, spans), (span) => x((span.from_mm + span.to_mm) / 2)).map((span) => (
            <RuleLabel
              key={span.id}
              centre={x((span.from_mm + span.to_mm) / 2)}
              width={width}
              pointed={touches(span, lines)}
              onPoint={() => point(span.ledger ?? [])}
              onLeave={() => point([])}
              text={span.label}
              figure={lengthText(span.to_mm - span.from_mm, unit)}
            />
          ))}
      </div>
    </section>
  );
}

/** A length up to the next tall tick. */
function upTo(length: number, unit: Unit): number {
  const tall = unit === "mm" ? 10 : 25.4;
  return Math.ceil(length / tall) * tall;
}

function Ruler({ to, unit, scale }: { to: number; unit: Unit; scale: number }) {
  return rulerTicks(to, unit, scale).map((tick) => {
    const x = EDGE + tick.at * scale;
    return (
      <g key={tick.at}>
        <line x1={x} x2={x} y1={0} y2={[7, 11, 17][tick.rank]} stroke="var(--color-ink)" />
        {tick.label !== undefined && (
          <text x={x} y={31} textAnchor="middle" className="fill-muted font-mono text-note">
            {tick.label}
          </text>
        )}
      </g>
    );
  });
}

interface BarProps {
  span: Span;
  scale: number;
  /** Where the piece lies, px. */
  line: number;
  step: RuleStep;
  rule: Rule | undefined;
  colour: string | undefined;
  /** Whether beads and what is bought are drawn over it. */
  drawn: boolean;
}

/** A stretch as a bar: straight wire as thick as it is, a row of alike parts as high as they are. */
function Bar({ span, scale, line, step, rule, colour, drawn }: BarProps) {
  const wire = rule?.width_mm ?? 1;
  const mm = step === "beads" && drawn ? wire : (span.width_mm ?? wire);
  const high = Math.min(Math.max(mm * scale, 1.5), ROOM);
  return (
    <rect
      x={EDGE + span.from_mm * scale}
      width={(span.to_mm - span.from_mm) * scale}
      y={line - high / 2}
      height={high}
      fill={step === "rows" ? (toneOf(span.tone) ?? colour) : colour}
      fillOpacity={span.kind === "trim" ? 0.4 : span.kind === "part" ? 0.72 : 1}
      stroke={drawn ? "var(--color-ink)" : "none"}
      strokeWidth={0.8}
    />
  );
}

// Rows are ticked no nearer than this, px: only every so many of them then.
const LEAST_ROW_PX = 4;

/** The rows of what is woven, ticked below it; every tenth one longer. */
function Rows({ rows, x }: { rows: NonNullable<Span["rows"]>; x: (mm: number) => number }) {
  const px = x(rows.pitch_mm) - x(0);
  const each = [1, 5, 10, 50].find((one) => one * px >= LEAST_ROW_PX) ?? 100;
  const ticks = Array.from({ length: Math.floor(rows.count / each) + 1 }, (_, i) => i * each);
  const [from, to] = [x(rows.from_mm), x(rows.from_mm + rows.count * rows.pitch_mm)];
  return (
    <g data-drawn="rows" stroke="var(--color-ink)">
      <line x1={from} x2={to} y1={LABELS_Y - 1} y2={LABELS_Y - 1} />
      {ticks.map((row) => (
        <line
          key={row}
          x1={x(rows.from_mm + row * rows.pitch_mm)}
          x2={x(rows.from_mm + row * rows.pitch_mm)}
          y1={LABELS_Y - (row % (10 * each) === 0 ? 9 : 5)}
          y2={LABELS_Y - 1}
        />
      ))}
    </g>
  );
}

interface OutlineProps {
  sheet: Sheet;
  scale: number;
  line: number;
  step: RuleStep;
  colour: string;
}

/** Every part by its own outline, each shape drawn once and placed as often as it occurs. */
function Outlines({ sheet, scale, line, step, colour }: OutlineProps) {
  const id = useId();
  const shapes = Object.entries(shapesOf(sheet));
  const names = shapes.map(([name]) => name);
  const placed = eachPlaced(sheet.placed ?? []);
  const hanging = (one: Placed) => hangs(shapesOf(sheet)[one.shape] ?? []);
  const cut = deepest(sheet.placed ?? [], shapesOf(sheet)) * scale > LABELS_Y - line;
  const put = (one: Placed, i: number) => {
    const [x, y] = one.at;
    const flip = flipped(one);
    return (
      <use
        key={i}
        href={`#${id}${names.indexOf(one.shape)}`}
        transform={`translate(${EDGE + x * scale} ${line - y * scale}) scale(${scale})${flip}`}
      />
    );
  };
  return (
    <>
      <defs>
        {shapes.map(([name, strokes], i) => (
          <g key={name} id={`${id}${i}`}>
            <Shape strokes={strokesAt(step, strokes)} colour={colour} scale={scale} />
          </g>
        ))}
        <clipPath id={`${id}room`}>
          <rect x={0} width="100%" y={RULER_Y - 2} height={LABELS_Y - RULER_Y} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}room)`}>
        {placed.filter(hanging).map(put)}
        {placed.filter((one) => !hanging(one)).map(put)}
      </g>
      {cut &&
        placed.filter(hanging).map((one, i) => {
          const x = lowestAt(one, shapesOf(sheet)[one.shape] ?? []);
          return <Break key={i} x={EDGE + x * scale} />;
        })}
    </>
  );
}

/** Where something hangs on below what is drawn: broken off as on a workshop drawing. */
function Break({ x }: { x: number }) {
  const y = LABELS_Y - 3;
  return (
    <path
      d={`M${x - 14} ${y}l7 -5l7 8l7 -8l7 5`}
      fill="none"
      stroke="var(--color-ink)"
      strokeWidth={1.6}
    />
  );
}

interface StrandProps {
  rule: Rule;
  x: (mm: number) => number;
  line: number;
}

/** The string through what is strung, each strand of it, as a line that is hidden. */
function Strands({ rule, x, line }: StrandProps) {
  if ((rule.strands ?? 1) < 2) return null;
  return (rule.strung_mm ?? []).map((run, i) =>
    strandsAt(rule.strands ?? 1).map((dy) => (
      <line
        key={`${i} ${dy}`}
        x1={x(run[0])}
        x2={x(run[1])}
        y1={line + dy}
        y2={line + dy}
        stroke="var(--color-ink)"
        strokeDasharray="5 3"
      />
    )),
  );
}

/** The line about which both halves are alike. */
function Mirror({ at, says }: { at: number; says: string }) {
  return (
    <g stroke="var(--color-ink)" fill="none">
      <text x={at + 15} y={46} stroke="none" className="fill-muted text-note">
        {says}
      </text>
      <line x1={at} x2={at} y1={RULER_Y} y2={LABELS_Y} strokeDasharray="9 3 2 3" />
      <path d={`M${at - 5} 41l-6 -3.5v7zM${at + 5} 41l6 -3.5v7z`} fill="var(--color-ink)" />
    </g>
  );
}

/** What can't be read off the drawing alone: mirrored, made twice, strung double, simplified. */
function Notes({ rule, step }: { rule: Rule; step: RuleStep | undefined }) {
  const { t } = useTranslation();
  const said = [
    (rule.made ?? 1) > 1 && t("rule.made", { count: rule.made ?? 1 }),
    (rule.strands ?? 1) > 1 && t("rule.strands", { count: rule.strands ?? 1 }),
    step && step !== "outlines" && t(`rule.step.${step}`),
  ].filter(Boolean);
  if (said.length === 0) return null;
  return (
    <p className="absolute top-[34px] right-2 rounded-sm bg-panel/85 px-1.5 text-note text-muted">
      {said.join(" · ")}
    </p>
  );
}

/** What is written below: groups where there are too many spans to name. */
function named(rule: Rule | undefined, spans: readonly Span[]): readonly Span[] {
  const groups = rule?.groups ?? [];
  return groups.length > 0 ? groups : spans.filter((span) => span.kind !== "trim");
}

// About what a letter of a label and its figure take, px.
const LETTER_PX = 7.4;
const FIGURE_PX = 56;

/** Labels that have room side by side; the longest stretches are named first. */
function apart(spans: readonly Span[], centre: (span: Span) => number): Span[] {
  const taken: [number, number][] = [];
  const bySize = [...spans].sort((a, b) => b.to_mm - b.from_mm - (a.to_mm - a.from_mm));
  return bySize.filter((span) => {
    const half = (span.label.length * LETTER_PX + FIGURE_PX) / 2;
    const middle = Math.max(centre(span), half);
    if (taken.some(([from, to]) => middle - half < to && middle + half > from)) return false;
    taken.push([middle - half, middle + half]);
    return true;
  });
}

function touches(span: { ledger?: readonly string[] }, lines: readonly string[]): boolean {
  return (span.ledger ?? []).some((id) => lines.includes(id));
}

interface LabelProps {
  centre: number;
  width: number;
  pointed: boolean;
  text: string;
  figure: string;
  onPoint: () => void;
  onLeave: () => void;
}

function RuleLabel({ centre, width, pointed, text, figure, onPoint, onLeave }: LabelProps) {
  const side =
    centre < 90
      ? { left: 12 }
      : centre > width - 90
        ? { right: 12 }
        : { left: centre, transform: "translateX(-50%)" };
  return (
    <button
      type="button"
      style={side}
      className={`absolute bottom-1 rounded-sm px-1 py-1 text-body whitespace-nowrap ${pointed ? "bg-tint" : ""}`}
      onPointerEnter={onPoint}
      onPointerLeave={onLeave}
      onFocus={onPoint}
      onBlur={onLeave}
      onClick={onPoint}
    >
      {text} <span className="figures font-semibold">{figure}</span>
    </button>
  );
}
