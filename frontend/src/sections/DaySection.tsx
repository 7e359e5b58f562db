import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ChevronUp, GripVertical, X } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ApiError, ask, type Day, type DayIn } from "../api/client";
import { arrived, benchQueries } from "../api/benchQueries";
import { useServerNow } from "../hooks/useServerNow";
import { useSize } from "../hooks/useSize";
import { addWords } from "../i18n";
import words from "../locales/en-day.json";
import {
  daysOf,
  drawn,
  goesOf,
  hoursOf,
  minutesText,
  moved,
  placeOf,
  type Span,
} from "../logic/day";
import { Button, buttonLook } from "../ui/Button";
import { Problem, TextField } from "../ui/TextField";

addWords(words);

const RESOURCES = ["hands", "torch", "pickle", "tumbler"] as const;
const AGAIN_MS = 30_000;
const zone = () => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";

/** Today's date where the maker is. */
function today(): string {
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

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
    <div className="grid grid-cols-1 min-[1000px]:grid-cols-[minmax(0,1fr)_330px]">
      <title>{`${t("nav.day")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="mb-3 flex flex-wrap items-end gap-3">
          <h1 className="mr-auto text-[26px]">{t("nav.day")}</h1>
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
          <Strip day={day} onChange={change} />
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
        className="border-t hairline bg-panel px-5 py-4 min-[1000px]:min-h-screen min-[1000px]:border-t-0 min-[1000px]:border-l"
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
    there_is: day.there_is as DayIn["there_is"],
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
        <span className="figures text-[52px] leading-none font-semibold">{clock(day.ends)}</span>
        <span className="ml-3 text-lg text-muted">
          {t("day.ends", { day: dayName(day.ends) })}
          {!day.proven &&
            day.bound &&
            ` · ${t("day.bound", { at: `${dayName(day.bound)} ${clock(day.bound)}` })}`}
        </span>
      </p>
      <p role="status" className="text-[15px] text-muted">
        {busy
          ? t("day.working")
          : stale
            ? t("day.stale", { why: stale })
            : t("day.changes", { count: day.changes })}
      </p>
      {late.map((lane) => (
        <p key={lane.piece_id} className="mt-1 border-l-4 border-ink pl-3">
          {t("day.late", { piece: lane.name, by: minutesText(lane.late_by ?? 0) })}
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

const clock = (moment: string) => moment.slice(11, 16);

function dayName(moment: string): string {
  const date = new Date(`${moment.slice(0, 10)}T12:00:00`);
  return date.toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short" });
}

interface StripProps {
  day: Day & { ahead?: number };
  onChange: (part: Partial<DayIn>) => void;
}

/** The strip of the day: one lane a piece, hands dark, waits hatched, now a line. */
function Strip({ day, onChange }: StripProps) {
  const { t } = useTranslation();
  const now = useServerNow(day.ahead ?? 0);
  const { ref, width } = useSize<HTMLDivElement>();
  const days = daysOf(day.lanes);
  const here = placeOf(days, now);
  const [dragged, drag] = useState<number | null>(null);
  const wide = Math.max(0, width - 8);
  return (
    <div className="overflow-x-auto" data-testid="strip">
      <div className="grid min-w-[720px] grid-cols-[300px_minmax(0,1fr)]">
        <span />
        <div ref={ref}>
          <Scale days={days} width={wide} zone={day.lanes} />
        </div>
        {day.lanes.map((lane, n) => (
          <div
            key={lane.piece_id}
            className={`col-span-2 grid grid-cols-subgrid border-t hairline ${dragged === lane.piece_id ? "opacity-50" : ""}`}
            draggable
            onDragStart={() => drag(lane.piece_id)}
            onDragEnd={() => drag(null)}
            onDragOver={(event) => event.preventDefault()}
            onDrop={() => {
              if (dragged === null) return;
              const pieces = moved(day.pieces, dragged, n);
              onChange({ pieces, first: n === 0 ? dragged : day.first });
            }}
          >
            <div className="flex items-center gap-1 py-1 pr-2">
              <GripVertical
                aria-hidden="true"
                size={18}
                className="shrink-0 cursor-grab text-muted"
              />
              <Link
                className="flex min-h-[44px] min-w-0 grow flex-col justify-center leading-tight"
                to={`/pieces/${lane.piece_id}/bench`}
              >
                <span className="truncate font-semibold">{lane.name}</span>
                <span className="text-[13px] text-muted">
                  {lane.due ? t("day.due", { day: dayName(`${lane.due}T`) }) : t("day.no_date")}
                </span>
              </Link>
              <Button
                className="px-2"
                aria-label={t("day.first", { piece: lane.name })}
                disabled={day.first === lane.piece_id}
                onClick={() =>
                  onChange({
                    pieces: moved(day.pieces, lane.piece_id, 0),
                    first: lane.piece_id,
                  })
                }
              >
                <ChevronUp aria-hidden="true" size={18} />
              </Button>
              <Button
                className="px-2"
                aria-label={t("day.out", { piece: lane.name })}
                onClick={() =>
                  onChange({
                    pieces: day.pieces.filter((one) => one !== lane.piece_id),
                    first: day.first === lane.piece_id ? null : day.first,
                  })
                }
              >
                <X aria-hidden="true" size={18} />
              </Button>
            </div>
            <svg
              width={wide}
              height={58}
              className="block"
              role="img"
              aria-label={laneSays(lane, t)}
            >
              {hoursOf(days).map((hour) => (
                <line
                  key={hour}
                  x1={(placeOf(days, hour) ?? 0) * wide}
                  x2={(placeOf(days, hour) ?? 0) * wide}
                  y1={0}
                  y2={58}
                  stroke="var(--color-hair)"
                />
              ))}
              {goesOf(lane.placed).map((go) => (
                <Bar key={go.from} go={go} days={days} wide={wide} />
              ))}
              {here !== null && (
                <line
                  x1={here * wide}
                  x2={here * wide}
                  y1={0}
                  y2={58}
                  stroke="var(--color-accent)"
                  strokeWidth={3}
                />
              )}
            </svg>
          </div>
        ))}
      </div>
      <p className="mt-2 flex flex-wrap gap-5 text-[14px] text-muted">
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-8 bg-ink" /> {t("day.hands")}
        </span>
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-8 border border-accent bg-tint" /> {t("day.wait")}
        </span>
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-[3px] bg-accent" /> {t("day.now")}
        </span>
      </p>
    </div>
  );
}

function laneSays(lane: Day["lanes"][number], t: (key: string) => string): string {
  const goes = lane.placed.map((one) => `${clock(one.start)} ${one.title}`).join(", ");
  return `${lane.name}: ${goes || t("day.nothing_left")}`;
}

interface BarProps {
  go: ReturnType<typeof goesOf>[number];
  days: Span[];
  wide: number;
}

function Bar({ go, days, wide }: BarProps) {
  const hands = drawn(days, go);
  const wait = go.free > go.to ? drawn(days, { from: go.to, to: go.free }) : null;
  return (
    <g>
      {wait && (
        <rect
          x={wait.at * wide}
          width={Math.max(1, wait.long * wide)}
          y={20}
          height={18}
          fill="var(--color-tint)"
          stroke="var(--color-accent)"
        />
      )}
      {hands && (
        <>
          <title>{go.titles.join(" · ")}</title>
          <rect
            x={hands.at * wide}
            width={Math.max(2, hands.long * wide - 1)}
            y={10}
            height={38}
            fill="var(--color-ink)"
          />
          {hands.long * wide > 46 && (
            <text x={hands.at * wide + 6} y={34} fontSize={14} fill="var(--color-on-ink)">
              {short(go.titles, hands.long * wide)}
            </text>
          )}
        </>
      )}
    </g>
  );
}

/** As much of the first title as a bar has room for, and how many more steps there are. */
function short(titles: readonly string[], width: number): string {
  const more = titles.length > 1 ? ` + ${titles.length - 1}` : "";
  const title = titles[0] ?? "";
  const room = Math.floor((width - 10) / 7.4) - more.length;
  if (title.length <= room) return title + more;
  return room > 3 ? `${title.slice(0, room - 1)}…${more}` : more.trim();
}

function Scale({ days, width, zone: lanes }: { days: Span[]; width: number; zone: Day["lanes"] }) {
  // The maker's own hours, as the server wrote them.
  const offset = offsetOf(lanes[0]?.placed[0]?.start ?? "");
  return (
    <svg width={width} height={42} aria-hidden="true">
      {hoursOf(days).map((hour) => {
        const x = (placeOf(days, hour) ?? 0) * width;
        const local = new Date(hour + offset);
        return (
          <text
            key={hour}
            x={Math.min(x + 3, width - 34)}
            y={36}
            fontSize={13}
            fill="var(--color-muted)"
            className="figures"
          >
            {`${local.getUTCHours()}:00`}
          </text>
        );
      })}
      {days.map((day) => (
        <text
          key={day.from}
          x={(placeOf(days, day.from) ?? 0) * width + 3}
          y={15}
          fontSize={14}
          fontWeight={600}
          fill="var(--color-ink)"
        >
          {dayName(new Date(day.from + offset).toISOString())}
        </text>
      ))}
    </svg>
  );
}

/** How far a moment's own zone is from the world's, as it is written behind it [ms]. */
function offsetOf(moment: string): number {
  const found = /([+-])(\d\d):(\d\d)$/.exec(moment);
  if (!found) return 0;
  return (found[1] === "-" ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3])) * 60_000;
}

interface SideProps {
  day: Day;
  onChange: (part: Partial<DayIn>) => void;
  busy?: boolean;
}

function Choose({ day, onChange, busy }: SideProps) {
  const { t } = useTranslation();
  const free = day.candidates.filter((one) => !day.pieces.includes(one.id));
  return (
    <section>
      <h2 className="mb-1 text-lg">{t("day.choose")}</h2>
      {free.length === 0 && <p className="text-muted">{t("day.all_chosen")}</p>}
      <ul className="max-h-[46vh] overflow-y-auto">
        {free.map((one) => (
          <li key={one.id} className="border-b hairline">
            <button
              type="button"
              disabled={busy}
              className="flex min-h-[44px] w-full items-center justify-between gap-3 text-left hover:bg-tint"
              onClick={() => onChange({ pieces: [...day.pieces, one.id] })}
            >
              <span className="min-w-0 truncate">{one.name}</span>
              <span className="shrink-0 text-[13px] text-muted">
                {one.due ? dayName(`${one.due}T`) : t(`waits.${one.waits_for}`)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** When there are hands, and what there is of what only one piece can have at a time. */
function Hours({ day, onChange }: SideProps) {
  const { t } = useTranslation();
  const [hours, setHours] = useState(day.hours);
  const put = (n: number, name: "start" | "end", text: string) =>
    setHours(hours.map((one, i) => (i === n ? { ...one, [name]: text } : one)));
  const keep = () => JSON.stringify(hours) !== JSON.stringify(day.hours) && onChange({ hours });
  return (
    <section className="mt-5">
      <h2 className="mb-1 text-lg">{t("day.hours")}</h2>
      {hours.map((one, n) => (
        <div key={n} className="mb-2 flex items-center gap-2">
          <TextField
            label={t("day.from", { n: n + 1 })}
            labelHidden
            value={one.start}
            onText={(x) => put(n, "start", x)}
            onBlur={keep}
          />
          –
          <TextField
            label={t("day.to", { n: n + 1 })}
            labelHidden
            value={one.end}
            onText={(x) => put(n, "end", x)}
            onBlur={keep}
          />
          <Button
            className="px-2"
            aria-label={t("day.drop_hours", { n: n + 1 })}
            disabled={hours.length === 1}
            onClick={() => onChange({ hours: day.hours.filter((_, i) => i !== n) })}
          >
            <X aria-hidden="true" size={18} />
          </Button>
        </div>
      ))}
      <Button onClick={() => onChange({ hours: [...day.hours, { start: "19:00", end: "21:00" }] })}>
        {t("day.add_hours")}
      </Button>
      <h2 className="mt-4 mb-1 text-lg">{t("day.there_is")}</h2>
      <div className="grid grid-cols-2 gap-2">
        {RESOURCES.map((name) => (
          <label key={name} className="flex items-center justify-between gap-2">
            {t(`day.resource.${name}`)}
            <input
              type="number"
              min={0}
              max={9}
              className="field figures w-16"
              defaultValue={day.there_is[name] ?? 1}
              onBlur={(event) => {
                const count = Number(event.target.value);
                if (count !== day.there_is[name])
                  onChange({ there_is: { ...day.there_is, [name]: count } as DayIn["there_is"] });
              }}
            />
          </label>
        ))}
      </div>
    </section>
  );
}
