import type { AtBench, StepAtBench, WaitView } from "../api/client";

/** What a press of the foot pedal does now. */
export type Onward =
  | { kind: "cut"; key: string }
  | { kind: "count"; key: string; counted: number }
  | { kind: "done" }
  | { kind: "look"; key: string }
  | { kind: "end_wait"; wait: number }
  | { kind: "finish" }
  | { kind: "stay" };

/** The wait that holds a piece up: the one of its own that ends last. */
export function holds(view: AtBench): WaitView | null {
  const own = view.waits.filter((one) => one.piece_id === view.id);
  return own.reduce<WaitView | null>(
    (last, one) => (last && last.ends_at >= one.ends_at ? last : one),
    null,
  );
}

/** How long a wait still is by the server's clock, seconds; nought and less once it is over. */
export function left(wait: Pick<WaitView, "ends_at">, now: number): number {
  return (Date.parse(wait.ends_at) - now) / 1000;
}

/** A time as it is read from two metres: 4:32, or 2 h 05 min. */
export function spanText(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  if (whole < 3600) return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
  const minutes = Math.ceil(whole / 60);
  return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, "0")} min`;
}

/** What going on does: the next wire, the next repeat, the next step, the end of a wait. */
export function onward(view: AtBench, at: string, now: number): Onward {
  const wait = holds(view);
  const open = view.steps.filter((one) => !one.done);
  // A wait is not hurried by a pedal: before its end going on is asked for by its own button.
  if (wait && at === view.at)
    return left(wait, now) > 0 ? STAY : { kind: "end_wait", wait: wait.id };
  if (open.length === 0) return view.finished ? STAY : { kind: "finish" };
  const step = view.steps.find((one) => one.step.id === at);
  if (!step || step.done) return { kind: "look", key: following(view, at) };
  const wire = step.cuts[0];
  if (wire) return { kind: "cut", key: wire.key };
  const times = repeats(step);
  return step.counted + 1 < times
    ? { kind: "count", key: at, counted: step.counted + 1 }
    : { kind: "done" };
}

const STAY: Onward = { kind: "stay" };

/** How often a step is repeated by a count of its own: wires are counted as they are cut. */
export function repeats(step: StepAtBench): number {
  return (step.step.asks ?? []).includes("cut") ? 1 : (step.step.times ?? 1);
}

/** The step behind another, the one that the piece is at behind the last. */
function following(view: AtBench, at: string): string {
  const ids = view.steps.map((one) => one.step.id);
  return ids[ids.indexOf(at) + 1] ?? view.at;
}

/** What going back does: one repeat less, else a look at the step before. */
export function backward(view: AtBench, at: string): Onward {
  const place = view.steps.findIndex((one) => one.step.id === at);
  const step = view.steps[place];
  const last = step?.step.round ? lastOfRound(view.steps, step.step.round) : step;
  if (last && !last.done && last.counted > 0)
    return { kind: "count", key: last.step.id, counted: last.counted - 1 };
  const before = view.steps[place - 1];
  return before ? { kind: "look", key: before.step.id } : STAY;
}

/** How far a step of a round is: how many parts are past it, those that it skips among them. */
function turn(one: StepAtBench, mates: readonly StepAtBench[]): number {
  const most = Math.max(...mates.map((mate) => repeats(mate)));
  const skips = one.step.skips ?? [];
  const parts = Array.from({ length: most }, (_, n) => n).filter((n) => !skips.includes(n + 1));
  return parts[one.counted] ?? most;
}

/** The step of a round that comes next: of the part that is least far, the first. */
function nextOfRound(steps: readonly StepAtBench[], round: string): StepAtBench | undefined {
  const mates = steps.filter((one) => one.step.round === round);
  const still = mates.filter((one) => !one.done);
  const least = Math.min(...still.map((one) => turn(one, mates)));
  return still.find((one) => turn(one, mates) === least);
}

/** The step of a round that was done last: of the part that is furthest, the last. */
function lastOfRound(steps: readonly StepAtBench[], round: string): StepAtBench | undefined {
  const mates = steps.filter((one) => one.step.round === round);
  const begun = mates.filter((one) => one.counted > 0);
  const most = Math.max(...begun.map((one) => turn(one, mates)));
  return begun.findLast((one) => turn(one, mates) === most);
}

/** Which part is at hand, counted from one; null where nothing is repeated. */
export function partOf(step: StepAtBench): { at: number; of: number } | null {
  const wires = step.cuts.length;
  if ((step.step.asks ?? []).includes("cut")) {
    const of = Math.max(step.step.times ?? 1, wires);
    return of > 1 && !step.done ? { at: Math.min(of - wires + 1, of), of } : null;
  }
  const of = repeats(step);
  return of > 1 && !step.done ? { at: step.counted + 1, of } : null;
}

/** Whether a step puts marks on a straight wire: then its marks are read, not one number. */
export function isMarking(step: StepAtBench): boolean {
  return (step.step.work ?? "").endsWith(".mark");
}

/** A piece with so many repeats of a step done, as it will be once the server has counted them. */
export function withCount<T extends AtBench>(view: T, key: string, counted: number): T {
  const steps = view.steps.map((one) => (one.step.id === key ? { ...one, counted } : one));
  const round = steps.find((one) => one.step.id === key)?.step.round;
  const next = round ? nextOfRound(steps, round) : undefined;
  return { ...view, steps, at: next?.step.id ?? view.at };
}

/** Waits that have ended since they were last looked at. */
export function justEnded(waits: readonly WaitView[], before: number, now: number): WaitView[] {
  return waits.filter((one) => {
    const ends = Date.parse(one.ends_at);
    return ends > before && ends <= now;
  });
}
