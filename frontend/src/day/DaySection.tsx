import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type Day, type DayIn } from "../api/client";
import { arrived, benchQueries } from "../api/benchQueries";
import { addWords } from "../i18n";
import words from "../locales/en-day.json";
import { clock, dayName, minutesText, today } from "./day";
import { buttonLook } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";
import { Choose } from "./Choose";
import { Hours } from "./Hours";
import { Order } from "./Order";
import { Strip } from "./Strip";

addWords(words);

const AGAIN_MS = 30_000;
const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** A day at the bench: what is chosen, when there are hands, and the order that ends soonest. */
export function DaySection() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const [on, setOn] = useState(today);
  const { data: day, error } = useQuery(benchQueries.day(on));
  const plan = useMutation({
    meta: { shown: true },
    mutationFn: (body: DayIn) => ask(api.PUT("/api/day", { params: { query: { on } }, body })),
    onSuccess: (fresh) => client.setQueryData(["day", on], arrived(fresh)),
  });
  const { mutate, isPending } = plan;
  const stale = day?.stale ?? "";
  const tried = useRef(0);
  useEffect(() => {
    // Worked out anew by itself, but no oftener than a maker would ask for it.
    if (!day || !stale || isPending || Date.now() - tried.current < AGAIN_MS) return;
    tried.current = Date.now();
    mutate(asTyped(day));
  }, [day, stale, isPending, mutate]);
  if (error) return <p className="p-8">{error.message}</p>;
  if (!day) return <p className="p-8 text-muted">{t("loading")}</p>;
  const change = (part: Partial<DayIn>) => mutate({ ...asTyped(day), ...part });
  const problems = plan.error instanceof ApiError ? (plan.error.details.problems ?? []) : [];
  return (
    <div className="grid grid-cols-1 laptop:grid-cols-[minmax(0,1fr)_330px]">
      <title>{`${t("nav.day")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="mb-3 flex flex-wrap items-end gap-3">
          <h1 className="mr-auto text-page">{t("nav.day")}</h1>
          <TextField
            label={t("day.on")}
            labelHidden
            type="date"
            value={on}
            onText={(text) => text && setOn(text)}
          />
          {day.lanes.length > 0 && (
            <a className={buttonLook("plain")} href={`/api/day.ics?on=${on}`}>
              {t("day.ics")}
            </a>
          )}
        </div>
        <Ends day={day} busy={isPending} stale={stale} />
        {day.lanes.length > 0 ? (
          <>
            <Strip day={day} onChange={change} />
            <Order lanes={day.lanes} />
          </>
        ) : (
          <p className="mt-4 max-w-prose">{t("day.empty")}</p>
        )}
        {problems.map((one) => (
          <Problem key={one.field} says={one.says} />
        ))}
        <Problem says={problems.length === 0 ? plan.error?.message : undefined} />
      </div>
      <aside
        aria-label={t("day.beside")}
        className="border-t hairline bg-panel px-5 py-4 laptop:min-h-screen laptop:border-t-0 laptop:border-l"
      >
        <Choose day={day} onChange={change} busy={isPending} />
        <Hours key={JSON.stringify(day.hours)} day={day} onChange={change} />
      </aside>
    </div>
  );
}

function asTyped(day: Day): DayIn {
  return {
    pieces: day.pieces,
    first: day.first,
    hours: day.hours,
    there_is: day.there_is,
    zone: zone(),
  };
}

/** The one answer: when the last piece is done, and what is late by how much. */
function Ends({ day, busy, stale }: { day: Day; busy: boolean; stale: string }) {
  const { t } = useTranslation();
  if (!day.ends) return busy ? <p role="status">{t("day.working")}</p> : null;
  const late = day.lanes.filter((lane) => lane.late_by);
  const out = day.lanes.filter((lane) => lane.leave_out);
  return (
    <div className="mb-3">
      <p>
        <span className="figures text-figure leading-none font-semibold">{clock(day.ends)}</span>
        <span className="ml-3 text-lead text-muted">
          {t("day.ends", { day: dayName(day.ends) })}
        </span>
      </p>
      {!day.proven && day.bound && (
        <p className="text-body text-muted">
          {t("day.bound", { at: `${dayName(day.bound)} ${clock(day.bound)}` })}
        </p>
      )}
      <p role="status" className="text-body text-muted">
        {busy
          ? t("day.working")
          : stale
            ? t("day.stale", { why: stale })
            : t("day.changes", { count: day.changes })}
      </p>
      {late.map((lane) => (
        <p key={lane.piece_id} className="mt-1 border-l-4 border-ink pl-3">
          {t(lane.late_anyhow ? "day.late_anyhow" : "day.late", {
            piece: lane.name,
            by: minutesText(lane.late_by ?? 0),
          })}
        </p>
      ))}
      {out.length > 0 && (
        <p className="mt-1 border-l-4 border-ink pl-3 font-semibold">
          {t("day.leave_out", { pieces: out.map((lane) => lane.name).join(", ") })}
        </p>
      )}
    </div>
  );
}
