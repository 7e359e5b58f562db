import { describe, expect, it } from "vitest";
import type { AtBench, StepAtBench, WaitView } from "../api/client";
import {
  backward,
  holds,
  isMarking,
  justEnded,
  left,
  onward,
  partOf,
  spanText,
  withCount,
} from "./benchMode";

const NOW = Date.parse("2026-11-02T09:00:00Z");

function step(
  id: string,
  more: Omit<Partial<StepAtBench>, "asks"> & { times?: number; asks?: string[] } = {},
) {
  const { times = 1, asks = [], ...rest } = more;
  return {
    step: { id, title: id, times, asks },
    done: false,
    counted: 0,
    cuts: [],
    asks: [],
    told: {},
    cautions: [],
    figure: null,
    seconds: 0,
    running: false,
    ...rest,
  } as unknown as StepAtBench;
}

function wait(id: number, piece: number, minutes: number): WaitView {
  const ends = new Date(NOW + minutes * 60_000).toISOString();
  return { id, piece_id: piece, ends_at: ends } as WaitView;
}

function view(steps: StepAtBench[], more: Partial<AtBench> = {}): AtBench {
  const at = steps.find((one) => !one.done)?.step.id ?? steps.at(-1)?.step.id ?? "";
  return { id: 7, steps, at, waits: [], in_hand: [], finished: false, ...more } as AtBench;
}

const wires = (n: number) =>
  Array.from({ length: n }, (_, i) => ({ key: `w${i}` })) as StepAtBench["cuts"];

describe("going on", () => {
  it("cuts wire after wire, the first of those that are left", () => {
    const at = view([step("cut", { times: 3, asks: ["cut"], cuts: wires(2) })]);
    expect(onward(at, "cut", NOW)).toEqual({ kind: "cut", key: "w0" });
    expect(partOf(at.steps[0]!)).toEqual({ at: 2, of: 3 });
  });

  it("ticks the cutting off once all wires are cut", () => {
    const at = view([step("cut", { times: 3, asks: ["cut"] })]);
    expect(onward(at, "cut", NOW)).toEqual({ kind: "done" });
  });

  it("counts repeats up to the last, which is done", () => {
    const at = (counted: number) => view([step("loop", { times: 26, counted })]);
    expect(onward(at(0), "loop", NOW)).toEqual({ kind: "count", key: "loop", counted: 1 });
    expect(partOf(at(6).steps[0]!)).toEqual({ at: 7, of: 26 });
    expect(onward(at(25), "loop", NOW)).toEqual({ kind: "done" });
  });

  it("walks on from a step that is done and is only looked at", () => {
    const at = view([step("a", { done: true }), step("b", { done: true }), step("c")]);
    expect(onward(at, "a", NOW)).toEqual({ kind: "look", key: "b" });
    expect(onward(at, "c", NOW)).toEqual({ kind: "done" });
  });

  it("is held up by a wait of the piece, and by no other's", () => {
    const steps = [step("a", { done: true }), step("b")];
    const held = view(steps, { waits: [wait(1, 9, 30), wait(2, 7, 5)] });
    expect(holds(held)?.id).toBe(2);
    expect(onward(held, "b", NOW)).toEqual({ kind: "stay" });
    expect(onward(held, "b", NOW + 6 * 60_000)).toEqual({ kind: "end_wait", wait: 2 });
    expect(onward(view(steps, { waits: [wait(1, 9, 30)] }), "b", NOW).kind).toBe("done");
  });

  it("ends in the log, once", () => {
    const steps = [step("a", { done: true })];
    expect(onward(view(steps), "a", NOW)).toEqual({ kind: "finish" });
    expect(onward(view(steps, { finished: true }), "a", NOW)).toEqual({ kind: "stay" });
  });
});

describe("going back", () => {
  it("takes a repeat back before it leaves the step", () => {
    const at = view([step("a", { done: true }), step("b", { times: 4, counted: 2 })]);
    expect(backward(at, "b")).toEqual({ kind: "count", key: "b", counted: 1 });
    const none = view([step("a", { done: true }), step("b", { times: 4 })]);
    expect(backward(none, "b")).toEqual({ kind: "look", key: "a" });
    expect(backward(none, "a")).toEqual({ kind: "stay" });
  });
});

describe("waits", () => {
  it("are read by the server's clock", () => {
    expect(left(wait(1, 7, 5), NOW + 60_000)).toBe(240);
    expect(spanText(272)).toBe("4:32");
    expect(spanText(0.2)).toBe("0:01");
    expect(spanText(-40)).toBe("0:00");
    expect(spanText(3600 * 2 + 241)).toBe("2 h 05 min");
  });

  it("sound once when they end", () => {
    const waits = [wait(1, 7, 5), wait(2, 8, 9)];
    expect(justEnded(waits, NOW, NOW + 6 * 60_000).map((one) => one.id)).toEqual([1]);
    expect(justEnded(waits, NOW + 6 * 60_000, NOW + 8 * 60_000)).toEqual([]);
  });
});

describe("presses that the server has not counted yet", () => {
  it("count at once, so that the next press goes on from there", () => {
    const links = view([step("links", { times: 3 }), step("clasp", { times: 3 })]);
    const once = withCount(links, "links", 1);
    expect(onward(once, "links", NOW)).toEqual({ kind: "count", key: "links", counted: 2 });
    expect(onward(withCount(once, "links", 2), "links", NOW)).toEqual({ kind: "done" });
    expect(onward(once, "clasp", NOW)).toEqual({ kind: "count", key: "clasp", counted: 1 });
  });
});

it("knows the steps at which marks are read off", () => {
  const works = ["wire.mark", "sliding.mark", "wire.cut", "finish.hallmark", undefined];
  const steps = works.map((work) => ({ step: { work } }) as StepAtBench);
  expect(steps.map(isMarking)).toEqual([true, true, false, false, false]);
});

describe("a round", () => {
  const round = (counts: number[]) =>
    view(
      ["open", "in", "wrap"].map((id, n) => {
        // The first of three has nothing to take.
        const one = step(id, { times: id === "in" ? 2 : 3, counted: counts[n] });
        const skips = id === "in" ? [1] : [];
        return { ...one, step: { ...one.step, round: "r", skips } };
      }),
    );

  it("does all for one part before the next is begun, past what the first has not", () => {
    let at = withCount(round([0, 0, 0]), "open", 1);
    const walked = [at.at];
    for (let n = 0; n < 6; n += 1) {
      const next = onward(at, at.at, NOW);
      if (next.kind !== "count") break;
      at = withCount(at, next.key, next.counted);
      walked.push(at.at);
    }
    expect(walked).toEqual(["wrap", "open", "in", "wrap", "open"]);
    // The last part ticks its steps off one by one.
    expect(onward(at, "open", NOW)).toEqual({ kind: "done" });
  });

  it("goes back to what was done last, whichever step that was", () => {
    const at = round([1, 0, 1]);
    expect(backward(at, "open")).toEqual({ kind: "count", key: "wrap", counted: 0 });
    expect(withCount(at, "wrap", 0).at).toBe("wrap");
    expect(backward(round([1, 0, 0]), "wrap")).toEqual({ kind: "count", key: "open", counted: 0 });
  });

  it("leaves out the part that a step is not for, wherever that stands", () => {
    const steps = ["open", "shut"].map((id) => {
      const one = step(id, { times: id === "shut" ? 2 : 3, counted: 1 });
      return { ...one, step: { ...one.step, round: "r", skips: id === "shut" ? [2] : [] } };
    });
    // The second part is bent and not shut: the third follows at once.
    const second = withCount(view(steps), "open", 2);
    expect(second.at).toBe("open");
    expect(withCount(view(steps), "shut", 0).at).toBe("shut");
  });
});
