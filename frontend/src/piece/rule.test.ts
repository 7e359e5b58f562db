import { describe, expect, it } from "vitest";

import type { Placed, Stroke } from "../shared/drawings/frame";
import { asHeld } from "../shared/drawings/frame";
import {
  deepest,
  lowestAt,
  hangs,
  heightOf,
  lineAt,
  ruleScale,
  ruleStep,
  strandsAt,
  strokesAt,
} from "./rule";

function stroke(points: [number, number][], width = 0): Stroke {
  return {
    part: "wire",
    points: asHeld(points),
    closed: true,
    width_mm: width,
    tone: "",
    times: 1,
    step: [0, 0],
  };
}

function put(shape: string, x: number, y = 0, times = 1): Placed {
  const at: [number, number] = [x, y];
  return { shape, at, turn: 0, mirrored: false, entry: "", length_mm: 8, times, pitch_mm: 8 };
}

const bead = [
  stroke([
    [0, -4],
    [8, -4],
    [8, 4],
    [0, 4],
  ]),
];
const drop = [
  stroke(
    [
      [0, 0.5],
      [3, -20],
    ],
    1,
  ),
];
const hook = [
  stroke(
    [
      [0, 1],
      [6, 11],
    ],
    1,
  ),
];

describe("the one scale of the Rule", () => {
  it("takes the whole width where there is room", () => {
    expect(ruleScale(1200, 200, 68, 8)).toBe(6);
    expect(ruleScale(1200, 200, 68, 0)).toBe(6);
  });

  it("takes less where the piece would be too high, but not much less than a third", () => {
    expect(ruleScale(1200, 200, 68, 20)).toBeCloseTo(3.4);
    expect(ruleScale(1200, 200, 68, 400)).toBeCloseTo(2.1);
  });

  it("shows a ring whole, however short its line is", () => {
    expect(ruleScale(1200, 17, 68, 22)).toBeCloseTo(68 / 22);
  });

  it.each([
    [6, "outlines"],
    [1.7, "outlines"],
    [1.69, "beads"],
    [0.75, "beads"],
    [0.74, "rows"],
  ] as const)("at %f px a mm draws %s", (scale, step) => {
    expect(ruleStep(scale)).toBe(step);
  });
});

describe("what lies in the line and what hangs from it", () => {
  it("tells a drop from a hook that stands up", () => {
    expect(hangs(drop)).toBe(true);
    expect(hangs(bead)).toBe(false);
    expect(hangs(hook)).toBe(false);
    expect(hangs([])).toBe(false);
  });

  it("measures the line without what hangs", () => {
    const placed = [put("bead", 0), put("hook", 8), put("drop", 20)];
    expect(heightOf(placed, { bead, drop, hook })).toEqual({ up: 11.5, down: 4 });
  });

  it("measures how deep the longest hangs, wherever it is set", () => {
    const placed = [put("bead", 0), put("drop", 20), put("drop", 30, -5, 2)];
    expect(deepest(placed, { bead, drop })).toBe(25);
    expect(deepest([put("bead", 0)], { bead })).toBe(0);
  });

  it("is broken off where it reaches lowest", () => {
    const low = {
      part: "wire",
      points: asHeld([
        [0, 0],
        [20, -30],
        [40, 0],
      ]),
    } as unknown as (typeof drop)[number];
    expect(lowestAt(put("swag", 100), [low])).toBe(120);
    expect(lowestAt(put("nothing", 7), [])).toBe(7);
  });

  it("lies in the middle, or lower where it reaches up, within a third", () => {
    expect(lineAt(40, 100, { up: 4, down: 4 }, 5)).toBe(70);
    expect(lineAt(40, 100, { up: 6, down: 2 }, 5)).toBe(80);
    expect(lineAt(40, 100, { up: 2, down: 6 }, 5)).toBe(60);
    expect(lineAt(40, 100, { up: 60, down: 0 }, 5)).toBe(90);
  });
});

it("leaves wire to a bar where only beads can be told", () => {
  const wire = stroke(
    [
      [0, 0],
      [8, 0],
    ],
    0.8,
  );
  expect(strokesAt("outlines", [...bead, wire])).toHaveLength(2);
  expect(strokesAt("beads", [...bead, wire])).toEqual(bead);
});

it("sets strands evenly about the middle", () => {
  expect(strandsAt(1)).toEqual([0]);
  expect(strandsAt(2)).toEqual([-2, 2]);
  expect(strandsAt(3)).toEqual([-4, 0, 4]);
});
