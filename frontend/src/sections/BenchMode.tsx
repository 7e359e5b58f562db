import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Bell, BellOff, BellRing } from "lucide-react";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useParams } from "react-router";
import {
  api,
  ApiError,
  ask,
  type AtBench,
  type Piece,
  type StepAtBench,
  type WaitView,
} from "../api/client";
import { arrived, benchQueries } from "../api/benchQueries";
import { queries } from "../api/queries";
import { useAwake } from "../hooks/useAwake";
import { useChime, type Chime } from "../hooks/useChime";
import { usePedal } from "../hooks/usePedal";
import { useServerNow } from "../hooks/useServerNow";
import { useTap } from "../hooks/useTap";
import { useTheme } from "../hooks/useTheme";
import { addWords } from "../i18n";
import formWords from "../locales/en-form.json";
import words from "../locales/en-bench.json";
import wovenWords from "../locales/en-woven.json";
import {
  backward,
  holds,
  justEnded,
  left,
  onward,
  partOf,
  repeats,
  spanText,
  type Onward,
} from "../logic/benchMode";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Problem } from "../ui/TextField";
import { AtHand } from "./bench/AtHand";
import { chosen, CutFrom, type CutTyped } from "./bench/CutFrom";
import { ToldFields } from "./bench/ToldFields";
import { Waiting } from "./bench/Waiting";

addWords(words);
addWords(formWords);
addWords(wovenWords);

type View = AtBench & { ahead: number };

/** Bench mode: one step fills the screen, and a foot pedal goes on. */
export function BenchMode() {
  const { id } = useParams();
  return <ById key={id} id={Number(id)} />;
}

function ById({ id }: { id: number }) {
  const { t } = useTranslation();
  const bench = useQuery(benchQueries.atBench(id));
  const piece = useQuery(queries.piece(id));
  if (bench.error)
    return (
      <p className="p-8">
        {isUnplanned(bench.error) ? t("at.no_plan") : bench.error.message}{" "}
        <Link className="underline" to={`/pieces/${id}/measure`}>
          {t("at.leave")}
        </Link>
      </p>
    );
  if (!bench.data || !piece.data) return <p className="p-8 text-muted">{t("loading")}</p>;
  return <OneStep view={bench.data} piece={piece.data} />;
}

const isUnplanned = (error: Error) => error instanceof ApiError && error.status === 409;

/** What a press does, done by the server; what comes back is shown. */
function useActions(view: View) {
  const client = useQueryClient();
  const params = useMemo(() => ({ path: { piece_id: view.id } }), [view.id]);
  const take = useCallback(
    (fresh: AtBench) => {
      // Of two answers on their way at once the one that the server made later holds.
      const known = client.getQueryData<AtBench>(["at-bench", view.id]);
      if (known && known.now > fresh.now) return;
      client.setQueryData(["at-bench", view.id], arrived(fresh));
      void client.invalidateQueries({ queryKey: ["piece", view.id] });
      void client.invalidateQueries({ queryKey: ["bench"] });
      void client.invalidateQueries({ queryKey: ["waits"] });
    },
    [client, view.id],
  );
  const act = useMutation({
    meta: { shown: true },
    mutationFn: async (action: Act): Promise<AtBench | null> => {
      const { kind, key } = action;
      const at = "/api/pieces/{piece_id}/bench" as const;
      if (kind === "done") return ask(api.POST(`${at}/done`, { params, body: { key } }));
      if (kind === "undone") return ask(api.POST(`${at}/undone`, { params, body: { key } }));
      if (kind === "count") {
        const body = { key, counted: action.counted ?? 0 };
        return ask(api.POST(`${at}/count`, { params, body }));
      }
      if (kind === "cut") {
        const { actual = "", stock_id = null } = action;
        const body = { kind: "cut" as const, key, actual, stock_id };
        await ask(api.POST("/api/pieces/{piece_id}/ticks", { params, body }));
      }
      if (kind === "end_wait") {
        const path = { wait_id: Number(key) };
        await ask(api.POST("/api/bench/waits/{wait_id}/end", { params: { path } }));
      }
      if (kind === "pause") await ask(api.POST("/api/bench/pause"));
      if (kind === "finish") {
        await ask(api.POST("/api/pieces/{piece_id}/finish", { params, body: { finished: true } }));
      }
      return ask(api.GET(at, { params }));
    },
    onSuccess: (fresh) => fresh && take(fresh),
    // Another tab was first: show where it stands now.
    onError: async () => take(await ask(api.GET("/api/pieces/{piece_id}/bench", { params }))),
  });
  // The clock goes on beside what is pressed, and never holds a press up.
  const clock = useMutation({
    mutationFn: (key: string) =>
      ask(api.POST("/api/pieces/{piece_id}/bench/go", { params, body: { key } })),
    onSuccess: take,
  });
  return { act, take, begin: clock.mutate };
}

interface Act {
  kind: "done" | "undone" | "pause" | "count" | "cut" | "end_wait" | "finish";
  key: string;
  counted?: number;
  actual?: string;
  stock_id?: number | null;
}

function OneStep({ view, piece }: { view: View; piece: Piece }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const { act, take, begin } = useActions(view);
  const [looked, look] = useState<string | null>(null);
  const [cut, setCut] = useState<CutTyped>({ actual: "", stock: null });
  const now = useServerNow(view.ahead);
  const chime = useChime();
  useAwake();
  useEnds(view.waits, now, chime.sound);
  usePaused(view, begin);
  const at = looked ?? view.at;
  const place = view.steps.findIndex((one) => one.step.id === at);
  const step = view.steps[place];
  const wait = looked === null || looked === view.at ? holds(view) : null;
  const done = view.steps.every((one) => one.done);

  const run = (next: Onward) => {
    if (act.isPending || next.kind === "stay") return;
    if (next.kind === "look") return look(next.key === view.at ? null : next.key);
    look(null);
    if (next.kind === "count") act.mutate({ kind: "count", key: at, counted: next.counted });
    else if (next.kind === "cut" && step) {
      const told = { actual: cut.actual, stock_id: chosen(step, cut) };
      // What was typed was of this wire; what it came from is likely to serve the next one, too.
      act.mutate(
        { kind: "cut", key: next.key, ...told },
        { onSuccess: () => setCut({ ...cut, actual: "" }) },
      );
    } else if (next.kind === "end_wait") act.mutate({ kind: "end_wait", key: String(next.wait) });
    else if (next.kind !== "cut") act.mutate({ kind: next.kind, key: at });
  };
  const on = () => run(onward(view, at, now));
  const back = () => run(backward(view, at));
  usePedal({ " ": on, PageDown: on, PageUp: back, Escape: () => leave() });
  const leave = () => {
    void ask(
      api.POST("/api/pieces/{piece_id}/bench/lay-down", {
        params: { path: { piece_id: view.id } },
      }),
    ).finally(() => void navigate(`/pieces/${view.id}/form`));
  };
  if (!step) return null;
  const next = onward(view, at, now);
  return (
    <div className="flex min-h-screen flex-col bg-ground">
      <title>{`${t("at.open")} · ${view.name}`}</title>
      <TopBar {...{ view, place, now, chime }} onLeave={leave} />
      {view.finished ? (
        <InTheLog />
      ) : done && looked === null ? (
        <AllDone name={view.name} onOn={on} busy={act.isPending} />
      ) : wait ? (
        <HeldUp
          {...{ view, wait, now }}
          marks={chime.marks}
          onHurry={() => act.mutate({ kind: "end_wait", key: String(wait.id) })}
        />
      ) : (
        <main id="work" className="grid grow grid-cols-1 gap-6 px-6 py-4 min-[900px]:grid-cols-2">
          <Looked onTap={on}>
            <AtHand key={`${at} ${step.cuts[0]?.key}`} piece={piece} step={step} />
          </Looked>
          <Words step={step}>
            <Clock
              {...{ step, now }}
              at={Date.parse(view.now)}
              onPause={() => act.mutate({ kind: "pause", key: at })}
              onGo={() => begin(at)}
            />
            <CutFrom piece={view.id} step={step} typed={cut} onTyped={setCut} onCut={on} />
            <ToldFields key={at} piece={view.id} step={step} onTake={take} />
          </Words>
        </main>
      )}
      <Foot
        {...{ step, next }}
        held={wait !== null}
        hidden={view.finished}
        busy={act.isPending}
        says={act.error instanceof ApiError ? toldOf(act.error, t) : act.error?.message}
        onOn={on}
        onBack={back}
        onAll={() => act.mutate({ kind: "done", key: at })}
        onNotDone={() => {
          look(null);
          act.mutate({ kind: "undone", key: at });
        }}
      />
    </div>
  );
}

function toldOf(error: ApiError, t: (key: string) => string): string {
  return error.status === 409 ? t("at.elsewhere") : error.message;
}

/** Rings once when a wait ends while this screen is open. */
function useEnds(waits: readonly WaitView[], now: number, sound: () => void) {
  const before = useRef(now);
  useEffect(() => {
    if (justEnded(waits, before.current, now).length > 0) sound();
    before.current = now;
  }, [waits, now, sound]);
}

/** The clock of the step at hand runs while the screen is open, and stands still when it closes. */
function usePaused(view: View, begin: (key: string) => void) {
  const at = view.at;
  const open = !view.finished && view.steps.some((one) => !one.done);
  const held = holds(view) !== null;
  useEffect(() => {
    if (open && !held) begin(at);
    // Once when the screen opens, and when another step or the end of a wait begins it anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [view.id, at, open, held]);
  useEffect(() => {
    const rest = () =>
      void api.POST("/api/bench/pause", { keepalive: true }).catch(() => undefined);
    addEventListener("pagehide", rest);
    return () => {
      removeEventListener("pagehide", rest);
      rest();
    };
  }, [view.id]);
}

interface TopProps {
  view: View;
  place: number;
  now: number;
  chime: ReturnType<typeof useChime>;
  onLeave: () => void;
}

// So many other pieces in hand stand in the bar; the bench has them all.
const MOST_BESIDE = 2;
const BELLS: Record<Chime, typeof Bell> = { both: BellRing, mark: Bell, none: BellOff };

function TopBar({ view, place, now, chime, onLeave }: TopProps) {
  const { t } = useTranslation();
  const theme = useTheme();
  const dark = theme.theme === "dark";
  const Signal = BELLS[chime.chime];
  const waiting = new Set(view.waits.map((one) => one.piece_id));
  const others = view.in_hand
    .filter((one) => one.id !== view.id && !waiting.has(one.id))
    .slice(-MOST_BESIDE);
  return (
    <header className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-ink px-6 py-2 min-[1000px]:flex-nowrap">
      <div className="mr-auto min-w-[9rem] flex-1">
        <h1 className="truncate text-[22px]">
          {view.name}
          {view.wearer && <span className="font-normal text-muted"> · {view.wearer}</span>}
        </h1>
        <p className="text-[15px] text-muted">
          {t("at.step_of", { at: place + 1, of: view.steps.length })}
        </p>
      </div>
      <Waiting waits={view.waits} now={now} here={view.id} marks={chime.marks} />
      {others.map((one) => (
        <Link
          key={one.id}
          to={`/pieces/${one.id}/bench`}
          className="flex min-h-[44px] items-center rounded-sm border hairline bg-panel px-3 underline underline-offset-4"
        >
          <span className="max-w-[8rem] truncate">{one.name}</span>
        </Link>
      ))}
      <Button
        onClick={chime.change}
        aria-label={t(`at.chime_${chime.chime}`)}
        title={t(`at.chime_${chime.chime}`)}
      >
        <Signal aria-hidden="true" size={20} />
      </Button>
      <Button onClick={() => theme.change(dark ? "light" : "dark")}>
        {t(dark ? "at.light" : "at.dark")}
      </Button>
      <Button onClick={onLeave} aria-keyshortcuts="Escape" title={t("at.leave_why")}>
        {t("at.leave")}
      </Button>
    </header>
  );
}

/** What is looked at; a tap on it goes on, as the pedal does. */
function Looked({ onTap, children }: { onTap: () => void; children: React.ReactNode }) {
  const ref = useRef<HTMLDivElement>(null);
  useTap(ref, onTap);
  return (
    <div ref={ref} className="flex min-h-[280px] flex-col" data-testid="drawing">
      <div className="min-h-0 grow rounded-sm border hairline bg-panel p-2">{children}</div>
    </div>
  );
}

/** The one number, what to do, what to look at, and what can hurt. */
function Words({ step, children }: { step: StepAtBench; children: React.ReactNode }) {
  const { t } = useTranslation();
  const wire = step.cuts[0];
  const part = partOf(step);
  const figure = wire ? { label: wire.label, value: wire.length_mm, count: false } : step.figure;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-[30px] leading-tight first-letter:uppercase" data-testid="step">
        {step.step.title}
        {step.done && (
          <span className="ml-3 rounded-sm bg-accent px-2 text-[20px] text-on-ink">
            {t("at.is_done")}
          </span>
        )}
      </h2>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-2">
        {figure && (
          <p>
            {figure.count ? (
              <span className="figures text-[96px] leading-none font-semibold">{figure.value}</span>
            ) : (
              <Figure mm={figure.value} unit className="text-[96px] leading-none font-semibold" />
            )}
            <span className="block text-[20px] text-muted">
              {figure.label}
              {wire && ` · ${wire.wire} ${wire.metal}`}
            </span>
          </p>
        )}
        {part && (
          <p className="figures text-[40px] leading-none font-semibold" role="status">
            {t("at.part", part)}
          </p>
        )}
      </div>
      <p className="max-w-[38rem] text-[22px] leading-snug">{step.step.says}</p>
      {step.step.check && (
        <p className="max-w-[38rem] border-l-[6px] border-accent pl-4 text-[20px] leading-snug">
          <strong className="text-accent">{t("at.check")}</strong> {step.step.check}
        </p>
      )}
      {step.cautions.map((one) => (
        <p
          key={one.id}
          className="max-w-[38rem] border-l-[6px] border-alarm pl-4 text-[18px] leading-snug"
        >
          <strong>{one.says}</strong> {one.because}.
        </p>
      ))}
      {children}
    </div>
  );
}

interface ClockProps {
  step: StepAtBench;
  now: number;
  /** When the server said how long the step has been worked on. */
  at: number;
  onPause: () => void;
  onGo: () => void;
}

/** The step's own clock, beside what it usually takes; a pause is taken out. */
function Clock({ step, now, at, onPause, onGo }: ClockProps) {
  const { t } = useTranslation();
  if (step.done) return null;
  const seconds = step.seconds + (step.running ? Math.max(0, (now - at) / 1000) : 0);
  return (
    <p className="flex items-center gap-3 text-[17px] text-muted">
      <span className="figures text-ink">{spanText(Math.floor(seconds))}</span>
      {t("at.usually", { minutes: Math.max(1, Math.round(step.step.minutes ?? 0)) })}
      <Button onClick={step.running ? onPause : onGo}>
        {t(step.running ? "at.pause" : "at.go")}
      </Button>
    </p>
  );
}

interface HeldProps {
  view: View;
  wait: WaitView;
  now: number;
  marks: boolean;
  onHurry: () => void;
}

/** A piece that is left alone: how long still, and what else there is to do. */
function HeldUp({ view, wait, now, marks, onHurry }: HeldProps) {
  const { t } = useTranslation();
  const rest = left(wait, now);
  const over = rest <= 0;
  const others = view.in_hand.filter((one) => one.id !== view.id);
  return (
    <main
      id="work"
      className={`flex grow flex-col items-center justify-center gap-6 p-6 text-center ${over && marks ? "bg-accent text-on-ink" : ""}`}
    >
      <h2 className="text-[34px] leading-tight first-letter:uppercase" data-testid="step">
        {wait.title}
      </h2>
      <p className="figures text-[160px] leading-none font-semibold" role="timer">
        {spanText(rest)}
      </p>
      <p className="text-[26px]">{t(over ? "at.held_over" : "at.held")}</p>
      {!over && (
        <>
          <Button onClick={onHurry}>{t("at.hurry")}</Button>
          <div>
            <h3 className="text-lg">{t("at.meanwhile")}</h3>
            {others.length === 0 && <p className="text-muted">{t("at.meanwhile_none")}</p>}
            <ul className="mt-2 flex flex-wrap justify-center gap-2">
              {others.map((one) => (
                <li key={one.id}>
                  <Link
                    className="flex min-h-[44px] items-center rounded-sm border border-ink px-4 text-lg font-semibold"
                    to={`/pieces/${one.id}/bench`}
                  >
                    {one.name}
                  </Link>
                </li>
              ))}
            </ul>
          </div>
        </>
      )}
    </main>
  );
}

function AllDone({ name, busy, onOn }: { name: string; busy: boolean; onOn: () => void }) {
  const { t } = useTranslation();
  return (
    <main id="work" className="flex grow flex-col items-center justify-center gap-6 p-6">
      <h2 className="text-[48px] leading-tight" data-testid="step">
        {t("at.all_done")}
      </h2>
      <p className="text-[26px]">{name}</p>
      <Button look="strong" className="text-lg" disabled={busy} onClick={onOn}>
        {t("at.on_finish")}
      </Button>
    </main>
  );
}

function InTheLog() {
  const { t } = useTranslation();
  return (
    <main id="work" className="flex grow flex-col items-center justify-center gap-6 p-6">
      <h2 className="text-[48px] leading-tight" data-testid="step">
        {t("at.finished")}
      </h2>
      <Link className="text-[26px] underline underline-offset-4" to="/log">
        {t("at.to_log")}
      </Link>
    </main>
  );
}

interface FootProps {
  step: StepAtBench;
  next: Onward;
  held: boolean;
  hidden: boolean;
  busy: boolean;
  says?: string;
  onOn: () => void;
  onBack: () => void;
  onAll: () => void;
  onNotDone: () => void;
}

/** Two large buttons, where a thumb or the side of a hand finds them. */
function Foot({ step, next, held, hidden, busy, says, onOn, onBack, onAll, onNotDone }: FootProps) {
  const { t } = useTranslation();
  if (hidden) return null;
  const many = !step.done && (step.cuts.length > 1 || repeats(step) > 1);
  const on = held || next.kind === "end_wait" ? "wait" : next.kind === "done" ? "" : next.kind;
  return (
    <footer className="sticky bottom-0 border-t border-ink bg-ground px-6 py-3">
      <Problem says={says} />
      <div className="flex flex-wrap items-center gap-3">
        <Button className="min-h-[64px] px-6 text-lg" onClick={onBack} aria-keyshortcuts="PageUp">
          {t("at.back")}
        </Button>
        {many && step.cuts.length === 0 && <Button onClick={onAll}>{t("at.all")}</Button>}
        {step.done && next.kind === "look" && (
          <Button onClick={onNotDone}>{t("at.not_done")}</Button>
        )}
        <span className="mx-auto text-[15px] text-muted max-[899px]:hidden">{t("at.pedal")}</span>
        <Button
          look="strong"
          className="ml-auto min-h-[64px] min-w-[18rem] px-8 text-[22px]"
          disabled={busy || next.kind === "stay"}
          onClick={onOn}
          aria-keyshortcuts="Space PageDown"
        >
          {t(on === "" || on === "stay" ? "at.on" : `at.on_${on}`)}
        </Button>
      </div>
    </footer>
  );
}
