import { lazy, Suspense } from "react";
import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { PieceLine } from "../api/client";
import { queries } from "../api/queries";
import { Figure } from "../shared/Figure";
import { StateMark } from "../piece/StationBar";

const WAITS = ["put_right", "try_on", "form", "cut", "make_up", "measure", "done"];
const STATION_OF: Record<string, string> = { try_on: "fit", put_right: "fit", done: "fit" };

/** Fetched beside the bench: the pieces come first. */
const QuickCut = lazy(async () => ({ default: (await import("../piece/QuickCut")).QuickCut }));

const InHand = lazy(async () => ({ default: (await import("./InHand")).InHand }));

/** Today: every piece by what it waits for, and the quick way to a cut. */
export function BenchSection() {
  const { t } = useTranslation();
  const { data: bench } = useQuery({
    ...queries.bench(),
    // Asking again goes on with what new tools have changed.
    refetchInterval: (query) => (query.state.data?.still_to_work_out ? 400 : false),
  });
  const still = bench?.still_to_work_out ?? 0;
  const pieces = bench?.pieces ?? [];
  return (
    <div className="grid grid-cols-1 wide:grid-cols-[1fr_370px]">
      <title>{`${t("nav.bench")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <h1 className="text-page">
          {bench?.workshop}
          {bench && (
            <span className="ml-4 text-base font-normal text-muted">
              {t("bench.count", { count: pieces.filter((p) => p.waits_for !== "done").length })}
            </span>
          )}
        </h1>
        {still > 0 && (
          <p role="status" className="mt-1 text-muted">
            {t("bench.still", { count: still })}
          </p>
        )}
        {bench?.kept_mb != null && (
          <p role="status" className="mt-1 border-l-4 border-ink pl-3 font-medium">
            {t("bench.nearly_full", {
              kept: bench.kept_mb.toFixed(0),
              most: (bench.most_mb ?? 0).toFixed(0),
            })}
          </p>
        )}
        <Suspense fallback={null}>
          <InHand />
        </Suspense>
        {bench && pieces.length === 0 && <p className="mt-6 max-w-prose">{t("bench.empty")}</p>}
        {WAITS.map((waits) => (
          <Group key={waits} waits={waits} pieces={pieces.filter((p) => p.waits_for === waits)} />
        ))}
      </div>
      <Suspense fallback={null}>
        <QuickCut />
      </Suspense>
    </div>
  );
}

function Group({ waits, pieces }: { waits: string; pieces: PieceLine[] }) {
  const { t } = useTranslation();
  if (pieces.length === 0) return null;
  return (
    <section className="mt-4" aria-labelledby={`waits-${waits}`}>
      <h2
        id={`waits-${waits}`}
        className="flex items-end justify-between border-b border-ink pb-0.5 text-lead"
      >
        {t(`waits.${waits}`)}
        {waits === "cut" && (
          <Link
            className="-mb-0.5 inline-flex min-h-[44px] items-end pb-1 text-body font-normal underline underline-offset-4"
            to="/cutting"
          >
            {t("board.batch")}
          </Link>
        )}
      </h2>
      <ul>
        {pieces.map((piece) => (
          <li key={piece.id} className="border-b hairline">
            <Link
              to={`/pieces/${piece.id}/${STATION_OF[waits] ?? waits}`}
              className="grid min-h-[54px] grid-cols-[minmax(0,1fr)_84px_126px] items-center gap-4 py-1 hover:bg-panel"
            >
              <span>
                <span className="flex flex-wrap items-center gap-x-3 text-body">
                  <span className="min-w-0 text-lead font-semibold break-words">{piece.name}</span>
                  <span className="flex items-center gap-1.5">
                    <StateMark state={stateOf(piece, waits)} />
                    {piece.stations[STATION_OF[waits] ?? waits]?.says}
                  </span>
                </span>
                <span className="block text-note leading-snug text-muted">
                  {[piece.wearer?.name ?? t("piece.nobody"), piece.made_of]
                    .filter(Boolean)
                    .join(" · ")}
                </span>
              </span>
              <span className="text-small text-muted">{piece.due && <Due date={piece.due} />}</span>
              <span className="text-right">
                {piece.answer ? (
                  <>
                    <Figure mm={piece.answer.value_mm} unit className="text-page font-semibold" />
                    <span className="block text-note leading-tight text-muted">
                      {piece.answer.label}
                      {piece.guessed && `, ${t("measure.guessed")}`}
                    </span>
                  </>
                ) : (
                  <span className="text-page text-muted">–</span>
                )}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function stateOf(piece: PieceLine, waits: string) {
  return piece.stations[STATION_OF[waits] ?? waits]?.state ?? "waiting";
}

function Due({ date }: { date: string }) {
  const day = new Date(`${date}T12:00:00`);
  return (
    <time dateTime={date}>
      {day.toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short" })}
    </time>
  );
}
