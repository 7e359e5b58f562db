import type { Technique } from "../../api/client";
import { placeOn, rangeOf, ticksOf } from "../../tools/hand";

const HEIGHT = 44;
const LINE_Y = 18;

interface Props {
  technique: Technique;
  width: number;
  /** What is said of it, for who can't see it. */
  label: string;
}

/** What is on record as dots on a line, with where nine of ten of the next fall. */
export function DotLine({ technique, width, label }: Props) {
  const range = rangeOf(technique);
  const x = placeOn(range, width - 16);
  const ticks = ticksOf(range, 4).filter((one) => x(one) > 6 && x(one) < width - 34);
  const plain = technique.kind === "former";
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={label}>
      <g transform="translate(8 0)">
        <line x1={0} x2={width - 16} y1={LINE_Y} y2={LINE_Y} stroke="var(--color-muted)" />
        {!plain && (
          <>
            <rect
              x={x(technique.low)}
              width={Math.max(1, x(technique.high) - x(technique.low))}
              y={LINE_Y - 7}
              height={14}
              fill="var(--color-tint)"
              stroke="var(--color-accent)"
            />
            <line x1={x(1)} x2={x(1)} y1={2} y2={LINE_Y + 10} stroke="var(--color-ink)" />
          </>
        )}
        {technique.records.map((one) => (
          <circle
            key={one.id}
            cx={x(one.ratio)}
            cy={LINE_Y}
            r={4}
            fill={one.aside ? "none" : "var(--color-ink)"}
            stroke="var(--color-ink)"
          />
        ))}
        <line
          x1={x(technique.ratio)}
          x2={x(technique.ratio)}
          y1={LINE_Y - 12}
          y2={LINE_Y + 12}
          stroke="var(--color-accent)"
          strokeWidth={4}
        />
        {ticks.map((value) => (
          <text
            key={value}
            x={x(value)}
            y={HEIGHT - 1}
            textAnchor="middle"
            fontSize={12}
            fill="var(--color-muted)"
            className="figures"
          >
            {value}
          </text>
        ))}
      </g>
    </svg>
  );
}
