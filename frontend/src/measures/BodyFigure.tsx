import { useTranslation } from "react-i18next";
import type { Wearer } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { lengthText } from "../shared/length";

/** Places of the sites on the figure, each with the side on which its words stand. */
const PLACES: Record<string, [number, number, "left" | "right", number]> = {
  crown_arc: [120, 18, "left", 14],
  head_girth: [120, 36, "right", 36],
  parting_arc: [120, 24, "right", 12],
  brow_arc: [112, 42, "left", 40],
  ear_rim_depth: [146, 54, "right", 62],
  neck_girth: [120, 88, "left", 82],
  neck_base_girth: [120, 100, "right", 96],
  upper_arm_girth: [62, 158, "left", 150],
  wrist_girth: [42, 246, "left", 240],
  hand_pass_girth: [37, 268, "left", 272],
  ankle_girth: [136, 404, "right", 398],
};

/** Everything that is measured on one person, drawn once: what was read, and what is missing. */
export function BodyFigure({ wearer, sites }: { wearer: Wearer; sites: readonly string[] }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const girths = new Map(wearer.girths.map((girth) => [girth.site, girth]));
  const shown = sites.filter((site) => PLACES[site]);
  const words = shown.map((site) => {
    const girth = girths.get(site);
    const value = girth ? lengthText(girth.value_mm, unit) : t("wearers.missing");
    return `${t(`site.${site}`)} ${value}`;
  });
  return (
    <svg
      viewBox="-130 0 500 428"
      role="img"
      aria-label={words.join(", ")}
      className="w-full max-w-[360px]"
      data-drawn="figure"
    >
      <g fill="var(--color-flesh)" stroke="var(--color-muted)" strokeWidth={1.4}>
        <ellipse cx="120" cy="46" rx="25" ry="32" />
        <path d="M109 74 L108 94 C92 102 74 104 66 118 C58 134 54 180 46 226 L36 262 C32 280 40 288 46 272 L58 232 C66 200 74 170 78 158 L82 230 C80 290 92 340 94 400 L84 418 L108 418 L112 400 C112 350 118 300 120 262 C122 300 128 350 128 400 L132 418 L156 418 L146 400 C148 340 160 290 158 230 L162 158 C166 170 174 200 182 232 L194 272 C200 288 208 280 204 262 L194 226 C186 180 182 134 174 118 C166 104 148 102 132 94 L131 74Z" />
      </g>
      {shown.map((site) => {
        const [x, y, side, textY] = PLACES[site] ?? [0, 0, "left", 0];
        const girth = girths.get(site);
        const edge = side === "left" ? 16 : 224;
        return (
          <g key={site}>
            <path
              d={`M${x} ${y} L${edge} ${textY}`}
              stroke={girth ? "var(--color-accent)" : "var(--color-hair)"}
              fill="none"
            />
            <circle
              cx={x}
              cy={y}
              r={4}
              fill={girth ? "var(--color-accent)" : "var(--color-panel)"}
              stroke={girth ? "var(--color-accent)" : "var(--color-muted)"}
            />
            <text
              x={side === "left" ? edge - 5 : edge + 5}
              y={textY + 4}
              textAnchor={side === "left" ? "end" : "start"}
              className={`text-head ${girth ? "fill-ink" : "fill-muted"}`}
            >
              {t(`short.${site}`)}
              {girth && (
                <tspan className="font-mono font-semibold">
                  {" "}
                  {lengthText(girth.value_mm, unit)}
                </tspan>
              )}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
