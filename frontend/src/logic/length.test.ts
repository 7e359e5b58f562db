import { describe, expect, it } from "vitest";

import { lengthText, roughMm, rulerTicks, showLength } from "./length";

describe("a length for the eye", () => {
  it.each([
    [85.86, 1, "85.9"],
    [80, 0, "80"],
    [-1.25, 2, "−1.25"],
    [0, 1, "0.0"],
  ])("%f mm to %i places is %s", (mm, places, text) => {
    expect(showLength(mm, "mm", places)).toEqual({ text, spoken: `${text} mm` });
  });

  it.each([
    [25.4, "1", undefined, "1 in"],
    [12.7, "", [1, 2], "1/2 in"],
    [190.5, "7", [1, 2], "7 1/2 in"],
    [161.925, "6", [3, 8], "6 3/8 in"],
    // The last sixteenth rounds up into the next inch.
    [25.39, "1", undefined, "1 in"],
  ])("%f mm in inches", (mm, text, fraction, spoken) => {
    expect(showLength(mm, "in")).toEqual(fraction ? { text, fraction, spoken } : { text, spoken });
  });

  it("gives thin things in decimals of an inch", () => {
    expect(showLength(1.628, "in").text).toBe("0.064");
    expect(showLength(6.3, "in").fraction).toBeUndefined();
    expect(showLength(6.4, "in").fraction).toEqual([1, 4]);
  });

  it("keeps the sign of a fraction below an inch", () => {
    expect(lengthText(-12.7, "in")).toBe("− 1/2");
    expect(lengthText(31.75, "in")).toBe("1 1/4");
    expect(lengthText(31.75, "mm", 2)).toBe("31.75");
  });
});

describe("a ruler", () => {
  it("labels every centimetre where there is room", () => {
    const ticks = rulerTicks(30, "mm", 5);
    expect(ticks).toHaveLength(31);
    expect(ticks.filter((tick) => tick.label).map((tick) => [tick.at, tick.label])).toEqual([
      [0, "0"],
      [10, "10"],
      [20, "20"],
      [30, "30"],
    ]);
    expect(ticks[5]?.rank).toBe(1);
    expect(ticks[3]?.rank).toBe(0);
  });

  it("leaves small ticks and labels out where it is crowded", () => {
    const middling = rulerTicks(100, "mm", 0.7);
    expect(middling.map((tick) => tick.rank)).not.toContain(0);
    const crowded = rulerTicks(200, "mm", 0.4);
    expect(crowded.every((tick) => tick.rank === 2)).toBe(true);
    expect(crowded.filter((tick) => tick.label).map((tick) => tick.label)).toEqual([
      "0",
      "100",
      "200",
    ]);
  });

  it("counts sixteenths of an inch", () => {
    const ticks = rulerTicks(25.4 * 2, "in", 4);
    expect(ticks).toHaveLength(33);
    expect(ticks.filter((tick) => tick.label).map((tick) => tick.label)).toEqual(["0", "1", "2"]);
    expect(ticks[8]?.at).toBeCloseTo(12.7, 9);
  });
});

describe("where a slider stands", () => {
  it.each([
    ["158", false, 158],
    ["158", true, 158 * 25.4],
    ["6.5 in", false, 165.1],
    ['7"', false, 177.8],
    ["16 mm", true, 16],
    [12, true, 12],
    ["", false, 0],
    ["nonsense", false, 0],
  ])("%s (inches: %s)", (typed, inches, mm) => {
    expect(roughMm(typed, inches)).toBeCloseTo(mm, 9);
  });
});
