import { useTranslation } from "react-i18next";
import type { WireShown } from "../../api/client";
import { hardness } from "../stages";

const WIDE = 380;
const HIGH = 52;
const EDGE = 7;

/** How hard the wire gets, step by step, and how hard the finished piece is at each place. */
export function HardnessCurve({ wire, step }: { wire: WireShown; step: string }) {
  const { t } = useTranslation();
  const { points } = hardness(wire);
  if (points.length < 2) return null;
  const x = (at: number) => EDGE + at * (WIDE - 2 * EDGE);
  const y = (hard: number) => HIGH - EDGE - hard * (HIGH - 2 * EDGE);
  const line = points.map((one) => `${x(one.at)} ${y(one.hard)}`).join("L");
  const row = (wire.temper ?? []).findLast((one) => one.step === step);
  const cracks = (wire.temper ?? []).some((one) => one.cracks);
  return (
    <div className="mt-2 border-t hairline pt-2">
      <svg
        viewBox={`0 0 ${WIDE} ${HIGH}`}
        role="img"
        aria-label={t("temper_track.curve", { from: wire.begins, to: points.at(-1)?.temper })}
        className="mb-1 w-full max-w-[380px]"
      >
        <line x1={0} x2={WIDE} y1={HIGH - 1} y2={HIGH - 1} stroke="var(--color-hair)" />
        <path d={`M${line}`} fill="none" stroke="var(--color-ink)" strokeWidth={1.6} />
        {points.map((one, i) => (
          <circle
            key={i}
            cx={x(one.at)}
            cy={y(one.hard)}
            r={one.annealed || one.step === step ? 5 : 3}
            fill={dot(one.annealed, one.step === step)}
            stroke="var(--color-ink)"
          />
        ))}
      </svg>
      <p className="text-small">
        {t("temper_track.begins", { temper: wire.begins })}
        {row && (
          <>
            {" · "}
            <strong className={row.cracks ? "text-accent" : ""}>
              {t(row.cracks ? "temper_track.cracks" : "temper_track.now", {
                place: row.place,
                temper: row.temper,
                used: Math.round((100 * row.used) / row.bears),
              })}
            </strong>
          </>
        )}
        {!cracks && (
          <>
            <br />
            {t("temper_track.ends", { ends: endsOf(wire) })}
          </>
        )}
      </p>
    </div>
  );
}

/** An annealing is an open ring; the step at hand has the colour of what it bends. */
function dot(annealed: boolean, here: boolean): string {
  if (here) return "var(--color-accent)";
  return annealed ? "var(--color-panel)" : "var(--color-ink)";
}

/** How hard the finished wire is at each place; places of one name and temper once. */
function endsOf(wire: WireShown): string {
  return [...new Set((wire.ends ?? []).map((one) => `${one.place} ${one.temper}`))].join(", ");
}
