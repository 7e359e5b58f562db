import { describe, expect, it } from "vitest";

import type { ShopTyped } from "../api/client";
import { asMm } from "../shared/length";
import { inUnit } from "./shop";

describe("a bare number as typed", () => {
  it.each([
    ["40", "mm", 40],
    ["2,6", "mm", 2.6],
    ["1 3/4", "in", 44.45],
    ["1-3/4", "in", 44.45],
    ["1/2", "in", 12.7],
    ["1.5", "in", 38.1],
    [52, "in", 52],
    // What has a unit, or is no number, stays.
    ["2 in", "mm", "2 in"],
    ["60 mm", "in", "60 mm"],
    ["a hand", "mm", "a hand"],
    ["", "mm", ""],
  ] as const)("%s on a bench in %s is %s", (value, from, mm) => {
    const kept = asMm(value, from);
    if (typeof mm === "number") expect(kept).toBeCloseTo(mm, 9);
    else expect(kept).toBe(mm);
  });
});

describe("a bench that changes its unit", () => {
  const shop = {
    unit: "mm",
    formers: [{ name: "mandrel", kind: "stepped mandrel", diameters: ["40", "2 in", 46] }],
    pins: [{ name: "pliers", kind: "stepped pliers", diameters: ["2.6"] }],
    landmarks: [{ name: "collarbone", below: "70" }],
    keep_length: "60",
    ease: { wrist: { fixed_mm: { snug: "6", loose: 22 }, percent: { snug: 5 } } },
    shelf: [{ kind: "own_link", name: "beak", moves: [{ move: "bend", pin: "4", degrees: 90 }] }],
  } as unknown as ShopTyped;

  it("keeps what every number meant", () => {
    const now = inUnit(shop, "in") as unknown;
    expect(now).toMatchObject({
      unit: "in",
      formers: [{ diameters: [40, "2 in", 46] }],
      pins: [{ diameters: [2.6] }],
      landmarks: [{ name: "collarbone", below: 70 }],
      keep_length: 60,
      ease: { wrist: { fixed_mm: { snug: 6, loose: 22 }, percent: { snug: 5 } } },
      shelf: [{ name: "beak", moves: [{ move: "bend", pin: 4, degrees: 90 }] }],
    });
    expect(now).not.toHaveProperty("sold_length");
  });

  it("comes back to the same, and does nothing where nothing changes", () => {
    expect(inUnit(shop, "mm")).toBe(shop);
    const there = inUnit(shop, "in");
    expect(inUnit(there, "mm")).toMatchObject({
      unit: "mm",
      formers: [{ diameters: [40, "2 in", 46] }],
    });
  });
});
