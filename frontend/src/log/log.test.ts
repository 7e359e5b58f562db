import { describe, expect, it } from "vitest";
import type { LogLine } from "../api/client";
import { byMonth, cameOut, money } from "./log";

const line = (more: Partial<LogLine>) =>
  ({
    planned_mm: null,
    made_mm: null,
    inside_planned_mm: null,
    inside_made_mm: null,
    ...more,
  }) as LogLine;

describe("how a piece came out", () => {
  it("goes by the finished length before the girth", () => {
    const both = line({
      planned_mm: 180,
      made_mm: 181,
      inside_planned_mm: 170,
      inside_made_mm: 165,
    });
    expect(cameOut(both)).toEqual({ made: 181, off: 1 });
    const inside = line({ planned_mm: 180, inside_planned_mm: 170, inside_made_mm: 165 });
    expect(cameOut(inside)).toEqual({ made: 165, off: -5 });
  });

  it("is not known of what was not measured", () => {
    expect(cameOut(line({ planned_mm: 180 }))).toBeNull();
    expect(cameOut(line({ made_mm: 180 }))).toBeNull();
  });
});

it("puts entries under their months in the order in which they come", () => {
  const on = (finished_on: string) => line({ finished_on });
  const months = byMonth([on("2026-11-02"), on("2026-11-01"), on("2026-09-30")]);
  expect(months.map((one) => [one.month, one.entries.length])).toEqual([
    ["2026-11", 2],
    ["2026-09", 1],
  ]);
});

it("writes money to the hundredth", () => {
  expect([12, 3.456, null, undefined].map((sum) => money(sum))).toEqual([
    "12.00",
    "3.46",
    "–",
    "–",
  ]);
  expect(money(12, "€")).toBe("12.00 €");
});
