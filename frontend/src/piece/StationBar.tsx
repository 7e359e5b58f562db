import { useTranslation } from "react-i18next";
import { NavLink } from "react-router";
import { STATIONS, type Piece, type Plan, type Station } from "../api/client";
import { Figure } from "../shared/Figure";

interface Props {
  piece: Piece;
  plan: Plan | null;
  station: Station;
}

/** The five stations in bench order, and the one figure that this station is about. */
export function StationBar({ piece, plan, station }: Props) {
  const { t } = useTranslation();
  const standing = station === "fit" && piece.waits_for === "put_right" ? piece.answer_now : null;
  const figure = standing ?? plan?.figures.find((one) => one.id === plan.answers[station]);
  return (
    <div className="flex items-stretch border-b border-ink max-laptop:flex-wrap">
      <nav aria-label={t("station.name")} className="flex grow">
        {STATIONS.map((one, i) => {
          const state = piece.stations[one];
          return (
            <NavLink
              key={one}
              to={`/pieces/${piece.id}/${one}`}
              aria-keyshortcuts={`${i + 1} Alt+${i + 1}`}
              className="group min-w-0 flex-1 border-r laptop:flex-auto hairline px-3 py-2 aria-[current=page]:bg-ink aria-[current=page]:text-on-ink"
            >
              <span className="flex items-center gap-2 text-head font-bold laptop:whitespace-nowrap">
                <StateMark state={state?.state ?? "waiting"} />
                {t(`station.${one}`)}
              </span>
              <span className="block text-small leading-tight text-muted group-aria-[current=page]:text-on-ink">
                {state?.says}
              </span>
            </NavLink>
          );
        })}
      </nav>
      <p
        aria-live="polite"
        className="flex min-w-[330px] grow items-baseline justify-end gap-3 px-6"
      >
        <span className="text-right text-body leading-tight text-muted">
          {figure ? figure.label : t("station.no_answer")}
          {figure && plan?.girths.some((girth) => girth.guessed) && `, ${t("measure.guessed")}`}
          {figure?.plus_minus_mm != null && (
            <span className="block">
              ± <Figure mm={figure.plus_minus_mm} />
            </span>
          )}
        </span>
        {figure ? (
          <Figure mm={figure.value_mm} unit className="text-figure leading-[66px] font-bold" />
        ) : (
          <span className="text-figure leading-[66px]">–</span>
        )}
      </p>
    </div>
  );
}

const SHAPES = {
  settled: <path d="M2.5 7.5 6 11l6-8" fill="none" stroke="currentColor" strokeWidth="2.4" />,
  needs: <circle cx="7" cy="7" r="4" fill="currentColor" />,
  stale: <path d="M7 2v6M7 10.5v2" fill="none" stroke="currentColor" strokeWidth="2.6" />,
  waiting: <circle cx="7" cy="7" r="4" fill="none" stroke="currentColor" strokeWidth="1.6" />,
};

/** A station's state as a shape, so that it needs no colour to be told apart. */
export function StateMark({ state }: { state: keyof typeof SHAPES }) {
  const { t } = useTranslation();
  return (
    <svg width="14" height="14" role="img" aria-label={t(`state.${state}`)} className="shrink-0">
      {SHAPES[state]}
    </svg>
  );
}
