import { describe, expect, it } from "vitest";

import type { Plan, Sheet } from "../api/client";
import { asHeld, asSent } from "../shared/drawings/frame";
import { bendsOf, entryOf, partSheet } from "./atHand";

const stroke = (low: number) => ({
  part: "wire",
  points: asHeld([
    [0, 2],
    [5, low],
  ]),
  width_mm: 1,
});
const placed = (shape: string, entry: string, length_mm: number) => ({
  shape,
  entry,
  length_mm,
  at: [40, 0],
  mirrored: true,
  times: 3,
});
const sequence = {
  id: "sequence",
  title: "",
  stations: ["form"],
  shapes: asSent({
    e1: [stroke(-3)],
    drop: [stroke(-20)],
    receiving: [stroke(-1)],
    holding: [stroke(-6)],
  }),
  placed: [
    placed("receiving", "closure", 12),
    placed("e1", "e1", 16.9),
    placed("e1", "e1", 16.9),
    placed("drop", "e2", 0),
    placed("holding", "closure", 4),
  ],
} as unknown as Sheet;

describe("what a step is about", () => {
  it.each([
    [{ id: "e1/thread", of: [] }, "e1"],
    [{ id: "both", of: ["e2/thread", "e1/thread"] }, "e2"],
    [{ id: "lay_out", of: [] }, ""],
    [undefined, ""],
  ])("%j is about %j", (step, entry) => {
    expect(entryOf(step)).toBe(entry);
  });

  it("is drawn alone, unturned and once, with its length below it", () => {
    const sheet = partSheet(sequence, "e1", "bears");
    expect(sheet?.placed).toHaveLength(1);
    expect(sheet?.placed?.[0]).toMatchObject({
      shape: "e1",
      at: [0, 0],
      times: 1,
      mirrored: false,
    });
    expect(sheet?.dimensions).toHaveLength(1);
    const line = sheet?.dimensions?.[0];
    expect(line).toMatchObject({ a: [0, 0], b: [16.9, 0], value_mm: 16.9, label: "bears" });
    // Clear of what reaches lowest: 3 and half its wire.
    expect(line?.offset_mm).toBeCloseTo(-1.25 * 3.5);
  });

  it("shows both halves of a closure side by side", () => {
    const sheet = partSheet(sequence, "closure", "bears");
    expect(sheet?.placed?.map((one) => one.shape)).toEqual(["receiving", "holding"]);
    expect(sheet?.placed?.[1]?.at).toEqual([18, 0]);
    expect(sheet?.dimensions?.map((one) => one.value_mm)).toEqual([12, 4]);
  });

  it("gives what hangs no length along the piece, and nothing where nothing is drawn", () => {
    expect(partSheet(sequence, "e2", "bears")?.dimensions).toEqual([]);
    expect(partSheet(sequence, "e9", "bears")).toBeNull();
    expect(partSheet(sequence, "", "bears")).toBeNull();
    expect(partSheet(undefined, "e1", "bears")).toBeNull();
  });
});

it("finds the bends of one part among those of all", () => {
  const plan = {
    bends: [
      ["e12/linked_bead", "e1/linked_bead"],
      ["e12/linked_bead"],
      ["e1/linked_bead"],
      ["bangle"],
    ].map((cuts, i) => ({ id: `${i}`, places: cuts.map((cut) => ({ cut, at_mm: [1] })) })),
  } as unknown as Plan;
  expect(bendsOf(plan, "e1").map((bend) => bend.id)).toEqual(["0", "2"]);
  expect(bendsOf(plan, "")).toEqual([]);
});
