import { describe, expect, it } from "vitest";
import type { HandRecord, Technique } from "../api/client";
import { offs, percent, placeOn, rangeOf, ticksOf, within } from "./hand";

const record = (planned: number, took: number, aside = false) =>
  ({ id: planned, planned, took, ratio: took / planned, aside }) as HandRecord;

describe("a line of ratios", () => {
  const technique = (kind: string, records: HandRecord[], low = 0.99, high = 1.11) =>
    ({ kind, records, low, high }) as unknown as Technique;

  it("has 1, the interval and every dot on it, set aside or not", () => {
    const [from, to] = rangeOf(technique("wire", [record(10, 13, true), record(10, 10.5)]));
    expect(from).toBeLessThan(0.99);
    expect(to).toBeGreaterThan(1.3);
    const at = placeOn([from, to], 200);
    expect(at(from)).toBe(0);
    expect(at(to)).toBeCloseTo(200);
    expect(at(1)).toBeGreaterThan(0);
  });

  it("of yields is about the yields, not about 1", () => {
    const yields = [
      { ...record(56, 60), ratio: 190 },
      { ...record(56, 61), ratio: 230 },
    ];
    const [from, to] = rangeOf(technique("former", yields, 190, 190));
    expect(from).toBeGreaterThan(150);
    expect(to).toBeLessThan(260);
  });

  it("has round figures under it", () => {
    expect(ticksOf([0.97, 1.13])).toEqual([1, 1.05, 1.1]);
    expect(ticksOf([180, 240])).toEqual([180, 200, 220, 240]);
    expect(ticksOf([1.0, 1.0001]).length).toBeGreaterThan(1);
  });
});

describe("what is said of it", () => {
  it("says ratios as more or less", () => {
    expect([1.041, 0.978, 1.0003].map(percent)).toEqual(["+ 4.1 %", "− 2.2 %", "± 0 %"]);
  });

  it("counts made against planned, without what is set aside", () => {
    const records = [record(180, 181.5), record(190, 187), record(200, 230, true)];
    expect(offs(records).map((one) => one.off)).toEqual([1.5, -3]);
    expect(within(records, 2)).toBe(1);
    expect(within(records, 3)).toBe(2);
  });
});
