import type { Technique } from "../../api/client";
import { placeOn, rangeOf, ticksOf } from "../../tools/hand";

const LEFT = 46;

interface Props {
  technique: Technique;
  width: number;
  height: number;
  label: string;
}

/** Records one after the other, the newest at the right; what is set aside is hollow. */
export function OverTime({ technique, width, height, label }: Props) {
  const range = rangeOf(technique);
  const place = placeOn(range, height - 16);
  const y = (value: number) => height - 8 - place(value);
  const count = technique.records.length;
  const x = (n: number) => LEFT + 10 + (count > 1 ? (n / (count - 1)) * (width - LEFT - 20) : 0);
  const plain = technique.kind === "former";
  return (
    <svg width={width} height={height} role="img" aria-label={label}>
      {!plain && (
        <rect
          x={LEFT}
          width={width - LEFT}
          y={y(technique.high)}
          height={Math.max(1, y(technique.low) - y(technique.high))}
          fill="var(--color-tint)"
        />
      )}
      {ticksOf(range, 4).map((value) => (
        <g key={value}>
          <line x1={LEFT} x2={width} y1={y(value)} y2={y(value)} stroke="var(--color-hair)" />
          <text
            x={LEFT - 6}
            y={y(value) + 4}
            textAnchor="end"
            fontSize={13}
            fill="var(--color-muted)"
            className="figures"
          >
            {value}
          </text>
        </g>
      ))}
      <line
        x1={LEFT}
        x2={width}
        y1={y(technique.ratio)}
        y2={y(technique.ratio)}
        stroke="var(--color-accent)"
        strokeWidth={2}
      />
      {technique.records.map((one, n) => (
        <circle
          key={one.id}
          cx={x(n)}
          cy={y(one.ratio)}
          r={5}
          fill={one.aside ? "var(--color-panel)" : "var(--color-ink)"}
          stroke="var(--color-ink)"
        />
      ))}
    </svg>
  );
}
