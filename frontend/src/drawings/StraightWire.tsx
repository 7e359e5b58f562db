import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { useSize } from "../hooks/useSize";
import { useUnit } from "../hooks/useUnit";
import { lengthText } from "../logic/length";

const EDGE = 14;
const WIRE_Y = 58;

/** One wire to cut, straight and to scale, each mark with its place from the left end. */
export function StraightWire({ cut, colour }: { cut: Plan["cuts"][number]; colour: string }) {
  const { t } = useTranslation();
  const { ref, width } = useSize<HTMLDivElement>();
  const unit = useUnit();
  const scale = (width - 2 * EDGE) / cut.length_mm;
  const x = (mm: number) => EDGE + mm * scale;
  const marks = layOut(cut.marks, scale, width);
  return (
    <div ref={ref} className="overflow-hidden">
      {width > 0 && (
        <svg
          width={width}
          height={150}
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
          <rect x={width / 2 - 70} width={140} y={6} height={28} fill="var(--color-ground)" />
          <text
            x={width / 2}
            y={27}
            textAnchor="middle"
            className="fill-ink font-mono text-[21px] font-semibold"
          >
            {lengthText(cut.length_mm, unit)} {unit}
          </text>
          {marks.map(({ mark, row, anchor }) => (
            <g key={mark.label + mark.at_mm}>
              <line
                x1={x(mark.at_mm)}
                x2={x(mark.at_mm)}
                y1={WIRE_Y - 14}
                y2={WIRE_Y + 18 + row * 21}
                stroke="var(--color-ink)"
                strokeWidth={1.5}
              />
              <text
                x={x(mark.at_mm) + (anchor === "start" ? 5 : anchor === "end" ? -5 : 0)}
                y={WIRE_Y + (anchor === "middle" ? 36 : 30) + row * 21}
                textAnchor={anchor}
                className="fill-ink text-[14px]"
              >
                {mark.label}{" "}
                <tspan className="font-mono">{lengthText(mark.at_mm, unit, 1, "fractions")}</tspan>
              </text>
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}

type Mark = Plan["cuts"][number]["marks"][number];
// How wide a mark's words come out, in px; nearer marks go to lower rows.
const LABEL_PX = 190;

function layOut(marks: readonly Mark[], scale: number, width: number) {
  const at = (mark: Mark) => EDGE + mark.at_mm * scale;
  const left = marks.filter((mark) => at(mark) < width * 0.34);
  let row = 0;
  let last = -Infinity;
  return marks.map((mark, i) => {
    // Words of the left marks run to the right, past later marks: the first one goes lowest.
    if (i < left.length) return { mark, row: left.length - 1 - i, anchor: "start" } as const;
    row = at(mark) - last < LABEL_PX ? row + 1 : 0;
    last = at(mark);
    return { mark, row, anchor: at(mark) > width * 0.66 ? "end" : "middle" } as const;
  });
}
