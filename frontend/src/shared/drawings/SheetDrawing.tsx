import type { Sheet, Unit } from "../../api/client";
import { usePointed } from "../../piece/usePointed";
import { useSize } from "../useSize";
import { useUnit } from "../useUnit";
import { lengthText } from "../length";
import {
  eachPlaced,
  flipped,
  frame,
  frameOf,
  place,
  pointsOf,
  shapesOf,
  smoothPath,
  upright,
  type Box,
  type Frame,
  type Placed,
} from "./frame";
import { Shape } from "./Shape";
import { toneOf } from "./tones";

/** How each part of a sheet is drawn; wire takes the metal's colour and its true thickness. */
const FILLS: Record<string, string> = {
  skin: "var(--color-flesh)",
  finger: "var(--color-flesh)",
  former: "var(--color-hair)",
  pin: "var(--color-hair)",
  runner: "wire",
  bead: "var(--color-panel)",
  pendant: "wire",
  ball: "wire",
};
/** Wire that is drawn in a colour of its own: what the step at hand bends. */
const MADE = "var(--color-accent)";
/** Lines that are only to be seen through: what is wanted, and what comes next. */
const DASHED = ["target", "ghost"];

interface Props {
  sheet: Sheet;
  colour: string;
  className?: string;
  /** What of it is looked at, where that is not all. */
  focus?: Box;
}

/** A drawing of the plan to scale, with its dimension lines. */
export function SheetDrawing({ sheet, colour, className = "", focus }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const unit = useUnit();
  const { lines } = usePointed();
  const ready = width > 60 && height > 60;
  const whole = () => (focus ? frameOf(focus, width, height) : frame(sheet, width, height));
  const at = ready ? whole() : null;
  return (
    <div ref={ref} className={`min-h-0 overflow-hidden ${className}`}>
      {at && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={describe(sheet, unit)}
          data-drawn={sheet.id}
        >
          {eachPlaced(sheet.placed ?? []).map((one, i) => (
            <g key={i} transform={placing(one, at)}>
              <Shape strokes={shapesOf(sheet)[one.shape] ?? []} colour={colour} scale={at.scale} />
            </g>
          ))}
          {(sheet.strokes ?? []).map((stroke) => {
            const path = pathOf(pointsOf(stroke), stroke.closed ?? false, at);
            const sort = stroke.part.split(" ")[0] ?? "";
            const fill = toneOf(stroke.tone) ?? FILLS[sort];
            const tone = toneOf(stroke.tone) ?? (sort === "made" ? MADE : colour);
            const wire = (stroke.width_mm ?? 0) > 0;
            const pointed = lines.includes(stroke.part);
            return (
              <g key={stroke.part}>
                {wire && (
                  <path
                    d={path}
                    fill="none"
                    stroke="var(--color-ink)"
                    strokeWidth={(stroke.width_mm ?? 0) * at.scale + (pointed ? 5 : 2)}
                    strokeLinecap="butt"
                  />
                )}
                <path
                  d={path}
                  fill={fill === "wire" ? colour : (fill ?? "none")}
                  stroke={wire ? tone : "var(--color-muted)"}
                  strokeWidth={wire ? (stroke.width_mm ?? 0) * at.scale : 1}
                  strokeDasharray={DASHED.includes(sort) ? "5 4" : undefined}
                />
              </g>
            );
          })}
          {placedLabels(sheet, at).map(({ label, x, y }) => {
            return (
              <text
                key={label.text}
                x={x}
                y={y + 5}
                textAnchor={label.anchor ?? "middle"}
                className="fill-ink text-small"
              >
                {label.text}
              </text>
            );
          })}
          {(sheet.dimensions ?? []).map((dimension) => (
            <DimensionLine
              key={dimension.label}
              at={at}
              a={dimension.a}
              b={dimension.b}
              offset={dimension.offset_mm ?? 0}
              text={`${dimension.label} ${lengthText(dimension.value_mm, unit)}`}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

// Words of one column want this much room each, in px; where there is less, every other goes.
const LINE_PX = 15;

function placedLabels(sheet: Sheet, at: Frame) {
  let last = -Infinity;
  return (sheet.labels ?? [])
    .map((label) => {
      const [x, y] = place(at, label.at);
      return { label, x, y };
    })
    .filter(({ label, y }) => {
      if (label.anchor !== "start") return true;
      if (Math.abs(y - last) < LINE_PX) return false;
      last = y;
      return true;
    });
}

function placing(one: Placed, at: Frame): string {
  const [x, y] = place(at, one.at);
  const flip = flipped(one);
  return `translate(${x} ${y}) scale(${at.scale})${flip}`;
}

function describe(sheet: Sheet, unit: Unit): string {
  const figures = (sheet.dimensions ?? []).map(
    (d) => `${d.label} ${lengthText(d.value_mm, unit)} ${unit}`,
  );
  return [sheet.title, ...figures].join(", ");
}

function pathOf(points: readonly [number, number][], closed: boolean, at: Frame): string {
  return smoothPath(
    points.map((point) => place(at, point)),
    closed,
  );
}

interface LineProps {
  at: Frame;
  a: [number, number];
  b: [number, number];
  offset: number;
  text: string;
}

/** A dimension as on a workshop drawing: extension lines, ticks, and the figure above. */
function DimensionLine({ at, a, b, offset, text }: LineProps) {
  const [x1, y1] = place(at, a);
  const [x2, y2] = place(at, b);
  if (upright(a, b)) return <UprightLine {...{ x1, y1, x2, y2, text }} off={offset * at.scale} />;
  const y = Math.min(y1, y2) - offset * at.scale;
  const above = offset >= 0;
  return (
    <g stroke="var(--color-ink)" strokeWidth={1}>
      {[
        [x1, y1],
        [x2, y2],
      ].map(([x, from], i) => (
        <g key={i}>
          <line x1={x} x2={x} y1={from} y2={y + (above ? -5 : 5)} strokeOpacity={0.35} />
          <line x1={(x ?? 0) - 4} x2={(x ?? 0) + 4} y1={y + 4} y2={y - 4} strokeWidth={1.6} />
        </g>
      ))}
      <line x1={x1} x2={x2} y1={y} y2={y} />
      <text
        x={(x1 + x2) / 2}
        y={above ? y - 8 : y + 20}
        textAnchor="middle"
        stroke="none"
        className="fill-ink font-mono text-body"
      >
        {text}
      </text>
    </g>
  );
}

interface UprightProps {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  off: number;
  text: string;
}

/** A dimension that stands upright: its line to the left, its figure along it. */
function UprightLine({ x1, y1, x2, y2, off, text }: UprightProps) {
  const x = Math.min(x1, x2) - off;
  const middle = (y1 + y2) / 2;
  return (
    <g stroke="var(--color-ink)" strokeWidth={1}>
      {[
        [x1, y1],
        [x2, y2],
      ].map(([from, y = 0], i) => (
        <g key={i}>
          <line x1={from} x2={x - 5} y1={y} y2={y} strokeOpacity={0.35} />
          <line x1={x - 4} x2={x + 4} y1={y + 4} y2={y - 4} strokeWidth={1.6} />
        </g>
      ))}
      <line x1={x} x2={x} y1={y1} y2={y2} />
      <text
        x={x - 8}
        y={middle}
        transform={`rotate(-90 ${x - 8} ${middle})`}
        textAnchor="middle"
        stroke="none"
        className="fill-ink font-mono text-body"
      >
        {text}
      </text>
    </g>
  );
}
