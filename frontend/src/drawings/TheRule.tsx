import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { usePointed } from "../hooks/usePointed";
import { useSize } from "../hooks/useSize";
import { useUnit } from "../hooks/useUnit";
import { lengthText, rulerTicks } from "../logic/length";
import { isBead, toneOf } from "./tones";

const EDGE = 30;
const WIRE_Y = 66;
const MOST_PX = 46;

type Rule = Plan["drawings"]["rule"];
type Span = Rule["spans"][number];

interface Props {
  plan: Plan | null;
  faded: boolean;
}

/** The ruler across the top: the piece straight and true to proportion, the band of doubt at its end. */
export function TheRule({ plan, faded }: Props) {
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const unit = useUnit();
  const { lines, point } = usePointed();
  const rule = plan?.drawings.rule;
  const length = rule?.length_mm ?? 250;
  const shown = unit === "mm" ? Math.ceil(length / 10) * 10 : Math.ceil(length / 25.4) * 25.4;
  const scale = (width - 2 * EDGE) / shown;
  const x = (mm: number) => EDGE + mm * scale;
  const band = rule?.band;
  const spans = (rule?.spans ?? []).filter((span) => span.to_mm > span.from_mm).flatMap(oneByOne);
  return (
    <section
      aria-label={t("rule.name")}
      className={`border-y border-ink bg-panel ${faded ? "opacity-45" : ""}`}
    >
      <div ref={ref} data-rule className="relative h-[116px] overflow-hidden">
        {width > 0 && (
          <svg width={width} height={116} aria-hidden="true" data-drawn="rule">
            {rulerTicks(shown, unit, scale).map((tick) => (
              <g key={tick.at}>
                <line
                  x1={x(tick.at)}
                  x2={x(tick.at)}
                  y1={0}
                  y2={[7, 11, 17][tick.rank]}
                  stroke="var(--color-ink)"
                />
                {tick.label !== undefined && (
                  <text
                    x={x(tick.at)}
                    y={31}
                    textAnchor="middle"
                    className="fill-muted font-mono text-[13px]"
                  >
                    {tick.label}
                  </text>
                )}
              </g>
            ))}
            {band && (
              <rect
                x={x(band.value - band.plus_minus)}
                width={Math.max(2, 2 * band.plus_minus * scale)}
                y={40}
                height={50}
                fill="var(--color-accent)"
                fillOpacity={0.28}
              />
            )}
            {spans.map((span) => (
              <rect
                key={span.id}
                x={x(span.from_mm)}
                width={(span.to_mm - span.from_mm) * scale - (span.width_mm != null ? 0.6 : 0)}
                y={WIRE_Y - thick(span, rule, scale) / 2}
                height={thick(span, rule, scale)}
                rx={round(span) ? ((span.to_mm - span.from_mm) * scale) / 2 : 0}
                ry={round(span) ? thick(span, rule, scale) / 2 : 0}
                fill={toneOf(span.tone) ?? plan?.colour}
                fillOpacity={span.kind === "trim" ? 0.4 : span.kind === "part" ? 0.72 : 1}
                stroke={touches(span, lines) || round(span) ? "var(--color-ink)" : "none"}
                strokeWidth={touches(span, lines) ? 3 : 0.8}
                onPointerEnter={() => point(span.ledger ?? [])}
                onPointerLeave={() => point([])}
              />
            ))}
            {(rule?.ticks_mm ?? []).map((at, i) => (
              <line
                key={i}
                x1={x(at)}
                x2={x(at)}
                y1={WIRE_Y - 15}
                y2={WIRE_Y + 15}
                stroke="var(--color-ink)"
                strokeWidth={1.5}
              />
            ))}
          </svg>
        )}
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

/** What lies side by side in a span, each by itself. */
function oneByOne(span: Span): Span[] {
  const times = span.times ?? 1;
  const each = (span.to_mm - span.from_mm) / times;
  return Array.from({ length: times }, (_, n) => ({
    ...span,
    id: times > 1 ? `${span.id}.${n}` : span.id,
    from_mm: span.from_mm + n * each,
    to_mm: span.from_mm + (n + 1) * each,
  }));
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
  if (spans.length <= 3) return [...spans];
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

/** Whether a span is a bead, which is drawn round. */
function round(span: Span): boolean {
  return isBead(span.tone) && span.kind === "body";
}

/** How thick a span is drawn, px: true to scale as far as there is room. */
function thick(span: Span, rule: Rule | undefined, scale: number): number {
  return Math.min(Math.max((span.width_mm ?? rule?.width_mm ?? 1) * scale, 1.5), MOST_PX);
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
      className={`absolute bottom-1 rounded-sm px-1 py-1 text-[15px] whitespace-nowrap ${pointed ? "bg-tint" : ""}`}
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
