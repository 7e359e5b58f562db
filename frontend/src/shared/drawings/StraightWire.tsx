import { useTranslation } from "react-i18next";
import type { Plan, Unit } from "../../api/client";
import { useSize } from "../useSize";
import { useUnit } from "../useUnit";
import { lengthText } from "../length";
import { markRows } from "../../piece/markRows";

const EDGE = 14;
const WIRE_Y = 58;

interface Props {
  cut: Plan["cuts"][number];
  colour: string;
  /** What it is drawn on. */
  on?: "ground" | "panel";
}

/** One wire to cut, straight and to scale, each mark with its place from the left end. */
export function StraightWire({ cut, colour, on = "ground" }: Props) {
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const unit = useUnit();
  const scale = (width - 2 * EDGE) / cut.length_mm;
  const x = (mm: number) => EDGE + mm * scale;
  const marks = layOut(cut.marks, scale, width, unit);
  const lowest = Math.max(0, ...marks.map(({ row }) => row));
  return (
    <div ref={ref} className="overflow-hidden">
      {width > 0 && (
        <svg
          width={width}
          height={WIRE_Y + 44 + lowest * 21}
          role="img"
          data-drawn="wire"
          aria-label={`${cut.label}, ${t("cut.marks")}: ${cut.marks
            .map((mark) => `${mark.label} ${lengthText(mark.at_mm, unit, 1, "fractions")} ${unit}`)
            .join(", ")}`}
        >
          <rect
            x={x(0)}
            width={cut.length_mm * scale}
            y={WIRE_Y - Math.max(3, cut.wire_mm * scale) / 2}
            height={Math.max(3, cut.wire_mm * scale)}
            fill={colour}
          />
          <g stroke="var(--color-ink)">
            <line x1={x(0)} x2={x(0)} y1={12} y2={WIRE_Y + 10} />
            <line x1={x(cut.length_mm)} x2={x(cut.length_mm)} y1={12} y2={WIRE_Y + 10} />
            <line x1={x(0)} x2={x(cut.length_mm)} y1={20} y2={20} />
          </g>
          <rect x={width / 2 - 70} width={140} y={6} height={28} fill={`var(--color-${on})`} />
          <text
            x={width / 2}
            y={27}
            textAnchor="middle"
            className="fill-ink font-mono text-head font-semibold"
          >
            {lengthText(cut.length_mm, unit)} {unit}
          </text>
          {marks.map(({ mark, row }) => (
            <line
              key={mark.label + mark.at_mm}
              x1={x(mark.at_mm)}
              x2={x(mark.at_mm)}
              y1={WIRE_Y - 14}
              y2={WIRE_Y + 18 + row * 21}
              stroke="var(--color-ink)"
              strokeWidth={1.5}
            />
          ))}
          {/* Words over all lines, with a rim of the ground: a line behind them is broken there. */}
          {marks.map(({ mark, row, anchor }) => (
            <text
              key={mark.label + mark.at_mm}
              x={x(mark.at_mm) + (anchor === "start" ? 5 : -5)}
              y={WIRE_Y + 30 + row * 21}
              textAnchor={anchor}
              className="fill-ink text-small"
              paintOrder="stroke"
              stroke={`var(--color-${on})`}
              strokeWidth={5}
            >
              {mark.label} <tspan className="font-mono">{place(mark, unit)}</tspan>
            </text>
          ))}
        </svg>
      )}
    </div>
  );
}

type Mark = Plan["cuts"][number]["marks"][number];
// How wide a sign of a mark's words and of its figure comes out, px.
const LETTER_PX = 7.1;
const DIGIT_PX = 8.6;

function layOut(marks: readonly Mark[], scale: number, width: number, unit: Unit) {
  const words = marks.map((mark) => ({
    x: EDGE + mark.at_mm * scale,
    wide: 12 + mark.label.length * LETTER_PX + place(mark, unit).length * DIGIT_PX,
  }));
  const laid = markRows(words, width);
  return marks.map((mark, i) => ({ mark, ...(laid[i] ?? { row: 0, anchor: "start" as const }) }));
}

function place(mark: Mark, unit: Unit): string {
  return lengthText(mark.at_mm, unit, 1, "fractions");
}
