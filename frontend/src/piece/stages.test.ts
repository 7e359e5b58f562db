import { describe, expect, it } from "vitest";
import { pointsOf } from "../shared/drawings/frame";
import type { WireShown } from "../api/client";
import { bentBox, hardness, pinsOf, played, stageOf, stageSheet, wiresFor } from "./stages";

const row = (step: string, yield_mpa: number, annealed = false) => ({
  step,
  title: step,
  place: "all of it",
  used: 0.1,
  bears: 0.5,
  yield_mpa,
  temper: "half-hard",
  annealed,
  cracks: false,
});

const wire = {
  id: "ring",
  label: "ring wire",
  wire_mm: 2,
  colour: "#B0643A",
  begins_mpa: 200,
  begins: "half-hard",
  stages: [
    {
      step: "",
      title: "as cut",
      line: [
        [0, 0],
        [100, 0],
      ],
      ghost: [
        [0, 0],
        [90, 0],
      ],
      length_mm: 100,
    },
    {
      step: "hook",
      title: "Bend the hook",
      line: [
        [0, 5],
        [5, 0],
        [95, 0],
      ],
      made: [
        [
          [0, 5],
          [5, 0],
        ],
      ],
      pins: [
        { at: [5, 3], diameter: 4 },
        { at: [7, 3], diameter: 4 },
      ],
      length_mm: 100,
    },
    { step: "shape", title: "Shape", line: [[0, 0]], length_mm: 100 },
  ],
  temper: [row("hook", 300), row("shape", 100, true)],
  ends: [],
} as unknown as WireShown;

const steps = ["cut", "anneal", "hook", "pickle", "shape", "file"];

describe("the stage that shows a step", () => {
  it.each([
    ["hook", 1],
    ["shape", 2],
    // A step that shapes nothing shows the wire as the one before left it.
    ["pickle", 1],
    ["file", 2],
    ["anneal", 0],
    ["", 0],
  ])("%s is stage %i", (step, at) => {
    expect(stageOf(wire, steps, step)).toBe(at);
  });

  it("puts the wire that the step shapes first", () => {
    const other = { ...wire, id: "eye", stages: [wire.stages[0]] } as unknown as WireShown;
    expect(wiresFor([other, wire], "hook").map((one) => one.id)).toEqual(["ring", "eye"]);
    expect(wiresFor([other, wire], "file").map((one) => one.id)).toEqual(["eye", "ring"]);
  });
});

it("plays on and back between its ends", () => {
  expect(played(0, -1, 3)).toBe(0);
  expect(played(0, 1, 3)).toBe(1);
  expect(played(2, 1, 3)).toBe(2);
  expect(played(0, 1, 0)).toBe(0);
});

describe("a stage drawn", () => {
  it("shows what comes next only where something does", () => {
    const parts = (at: number) => (stageSheet(wire, at).strokes ?? []).map((one) => one.part);
    expect(parts(0)).toEqual(["ghost", "wire"]);
    expect(parts(1)).toEqual(["pin 0", "pin 1", "wire", "made 0"]);
  });

  it("draws a pin as wide as it is, and the wire as thick", () => {
    const strokes = stageSheet(wire, 1).strokes ?? [];
    const pin = strokes.find((one) => one.part === "pin 0");
    const xs = pointsOf({ points: pin?.points ?? [] }).map(([x]) => x);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(4, 9);
    expect(strokes.find((one) => one.part === "wire")?.width_mm).toBe(2);
  });

  it("says every pin once", () => {
    expect(pinsOf(wire.stages[1])).toEqual([4]);
    expect(pinsOf(undefined)).toEqual([]);
  });
});

describe("what is bent, enlarged", () => {
  it("takes in bend and pins and some of the wire beside them", () => {
    // 0 to 9 across with its pins, so 6 more on each side.
    expect(bentBox(wire.stages[1])).toEqual([
      [-6, -6],
      [15, 11],
    ]);
  });

  it("is left out where nothing is bent or all of it is", () => {
    expect(bentBox(wire.stages[0])).toBeNull();
    const ring = { ...wire.stages[1], line: wire.stages[1]?.made?.[0] } as never;
    expect(bentBox(ring)).toBeNull();
  });
});

it("draws hardness from the wire as bought to the last step", () => {
  const { points } = hardness(wire);
  expect(points.map((one) => one.hard)).toEqual([0.5, 1, 0]);
  expect(points.map((one) => one.at)).toEqual([0, 0.5, 1]);
  expect(points.map((one) => one.annealed)).toEqual([false, false, true]);
});
