/** What was cut and done, held against the plan: how it is put together for a screen. */
import type { Plan, Standing, WireNow } from "../api/client";

type Cut = Plan["cuts"][number];
type Step = Plan["steps"][number];

/** Cuts that are cut alike, whomever they are for: how many in all, and how many are still open. */
export interface CutGroup {
  cut: Cut;
  quantity: number;
  open: number;
}

/** The cut that a wire's key belongs to. */
export function cutOf(key: string): string {
  return key.split("#")[0] ?? key;
}

/** The wire cuts of a plan, those that are alike together. */
export function cutGroups(cuts: readonly Cut[], openWires: readonly string[]): CutGroup[] {
  const openOf = (id: string) => openWires.filter((key) => cutOf(key) === id).length;
  return cuts
    .filter((cut) => (cut.alike || cut.id) === cut.id)
    .map((cut) => {
      const alike = cuts.filter((one) => one === cut || one.alike === cut.id);
      return {
        cut,
        quantity: alike.reduce((sum, one) => sum + one.quantity, 0),
        open: alike.reduce((sum, one) => sum + openOf(one.id), 0),
      };
    });
}

/** Whether nothing is left to do about a wire that was cut. */
export function isSettled(wire: WireNow): boolean {
  return wire.verdict === "right" || wire.known;
}

/** The wires that no longer suit the plan, what can be put right first. */
export function unsettled(standing: Standing): WireNow[] {
  const order = ["long", "short", "other_wire", "not_needed", "right"];
  return [...(standing.wires ?? [])]
    .filter((wire) => !isSettled(wire))
    .sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict));
}

/** Wires that were cut alike and are off alike: what is done with one may be done with all. */
export function offAlike(wires: readonly WireNow[]): WireNow[][] {
  const groups = new Map<string, WireNow[]>();
  for (const wire of wires) {
    const lengths = [wire.actual_mm, wire.wanted_mm ?? 0].map((mm) => mm.toFixed(2));
    const alike = JSON.stringify([cutOf(wire.key), wire.verdict, ...lengths]);
    groups.set(alike, [...(groups.get(alike) ?? []), wire]);
  }
  return [...groups.values()];
}

/** The steps that a step stands for, its own among them. */
export function standsFor(step: Step): readonly string[] {
  return step.of && step.of.length > 0 ? step.of : [step.id];
}

/** Whether a step is done for every entry that it is for. */
export function isDone(step: Step, done: ReadonlySet<string>): boolean {
  return standsFor(step).every((key) => done.has(key));
}

/** What has changed about a step since it was done, each once. */
export function changesOf(step: Step, standing: Standing): string[] {
  const keys = standsFor(step);
  const found = (standing.steps ?? []).filter(
    (one) => one.verdict === "changed" && keys.includes(one.key),
  );
  return [...new Set(found.flatMap((one) => one.changes ?? []))];
}
