import "../locales/work";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate, useParams } from "react-router";
import { api, ApiError, type Piece, type WaitView } from "../api/client";
import { benchQueries } from "../api/benchQueries";
import { queries } from "../api/queries";
import { useAwake } from "./useAwake";
import { useChime } from "./useChime";
import { usePedal } from "./usePedal";
import { useServerNow } from "../shared/useServerNow";
import { useTap } from "./useTap";
import { addWords } from "../i18n";
import formWords from "../locales/en-form.json";
import words from "../locales/en-bench.json";
import wovenWords from "../locales/en-woven.json";
import { backward, holds, justEnded, onward, type Onward } from "./benchMode";
import { AtHand } from "./AtHand";
import { asksWhether } from "../piece/slips";
import { chosen, CutFrom, type CutTyped } from "./CutFrom";
import { Foot } from "./Foot";
import { AllDone, HeldUp, InTheLog } from "./HeldUp";
import { SoFar } from "./SoFar";
import { ToldFields } from "./ToldFields";
import { TopBar } from "./TopBar";
import { useActions, type View } from "./useActions";
import { Clock, Words } from "./Words";

addWords(words);
addWords(formWords);
addWords(wovenWords);

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

function OneStep({ view, piece }: { view: View; piece: Piece }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const { act, take, begin, busy, stands, count, layDown } = useActions(view);
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

  const press = (what: (stood: View, at: string) => Onward) => {
    // A pedal that bounces ticks nothing off twice; one that is quicker than the screen counts.
    const stood = stands();
    const at = looked ?? stood.at;
    const next = what(stood, at);
    if (busy() || next.kind === "stay") return;
    if (next.kind === "look") return look(next.key === stood.at ? null : next.key);
    look(null);
    if (next.kind === "count") count(next.key, next.counted);
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
  const on = () => press((stood, at) => onward(stood, at, now));
  const back = () => press(backward);
  const leave = () =>
    void layDown()
      .catch(() => undefined)
      .finally(() => void navigate(`/pieces/${view.id}/form`));
  usePedal({ " ": on, PageDown: on, PageUp: back, Escape: leave });
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
        <main id="work" className="grid grow grid-cols-1 gap-6 px-6 py-4 laptop:grid-cols-2">
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
            <CutFrom
              piece={view.id}
              step={step}
              typed={cut}
              question={asksWhether(act.error)}
              onTyped={(typed) => {
                act.reset();
                setCut(typed);
              }}
              onCut={on}
              onSure={() =>
                act.variables &&
                act.mutate(
                  { ...act.variables, sure: true },
                  { onSuccess: () => setCut({ ...cut, actual: "" }) },
                )
              }
            />
            <SoFar key={`${at} so far`} view={view} step={step} onTake={take} />
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
