import { describe, expect, it } from "vitest";

import vectors from "../../../tests/data/inches.json";
import {
  inchStyle,
  keptLengths,
  lengthRange,
  lengthText,
  roughMm,
  rulerTicks,
  showLength,
  typedLength,
  typedLengths,
  typedWithUnit,
} from "./length";

describe("inches on the screen and on paper", () => {
  it("are written alike, every sixty-fourth", () => {
    // The same file is read by tests/core/test_inch_bench.py.
    expect(vectors.rows).toHaveLength(583);
    for (const [sixtyFourths, text] of vectors.rows as [number, string][])
      expect(lengthText((sixtyFourths * 25.4) / 64, "in"), String(sixtyFourths)).toBe(text);
    expect(lengthText(1.5875, "in")).toBe("0.063");
  });
});

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
    [172.24, "6", [25, 32], "6 25/32 in"],
    [17.46, "", [11, 16], "11/16 in"],
    // The last thirty-second rounds up into the next inch.
    [25.39, "1", undefined, "1 in"],
  ])("%f mm in inches", (mm, text, fraction, spoken) => {
    expect(showLength(mm, "in")).toEqual(fraction ? { text, fraction, spoken } : { text, spoken });
  });

  it("gives thin things in decimals of an inch", () => {
    expect(showLength(1.628, "in").text).toBe("0.064");
    expect(showLength(6.3, "in").fraction).toBeUndefined();
    expect(showLength(6.4, "in").fraction).toEqual([1, 4]);
    expect(showLength(0, "in").text).toBe("0");
  });

  it("writes a column one way, whatever stands in it", () => {
    expect(inchStyle([171.45, 12.7, 0, null])).toBe("fractions");
    expect(inchStyle([171.45, 2])).toBe("decimals");
    expect(lengthText(171.45, "in", 1, "decimals")).toBe("6.750");
    expect(lengthText(2, "in", 1, "decimals")).toBe("0.079");
    expect(lengthText(171.45, "mm", 1, "decimals")).toBe("171.4");
  });

  it("keeps the sign of a fraction below an inch", () => {
    expect(lengthText(-12.7, "in")).toBe("−1/2");
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

describe("a field of a length", () => {
  it.each([
    // Text stands as it was typed.
    ["158", "in", "158"],
    ["6 3/4 in", "mm", "6 3/4 in"],
    [undefined, "in", ""],
    [null, "mm", ""],
    // A number is millimetres.
    [8, "mm", "8"],
    [12.7, "in", "1/2"],
    [171.45, "in", "6 3/4"],
    // What is no thirty-second is written so that it reads back the same.
    [40, "in", "1.575"],
    [2.6, "in", "0.102"],
    [0, "in", "0"],
  ] as const)("%s on a bench in %s shows %s", (value, unit, shown) => {
    expect(typedLength(value, unit)).toBe(shown);
  });

  it.each([0.4, 1.5, 2.6, 40, 60, 117.3, 1000])("reads %f back within 0.013 mm", (mm) => {
    expect(Math.abs(roughMm(typedLength(mm, "in"), true) - mm)).toBeLessThan(0.0131);
  });

  it("fills in with its unit", () => {
    expect(typedWithUnit(60, "mm")).toBe("60.0 mm");
    expect(typedWithUnit(60, "in")).toBe("2.362 in");
    expect(typedWithUnit(63.5, "in")).toBe("2 1/2 in");
  });

  it("says its range in one way", () => {
    expect(lengthRange(2, 25, "mm")).toBe("2 – 25 mm");
    expect(lengthRange(2, 25, "in")).toBe("0.079 – 0.984 in");
    expect(lengthRange(12.7, 254, "in")).toBe("1/2 – 10 in");
  });
});

describe("a list of lengths in one field", () => {
  const steps = [40, 43, 46];

  it("shows numbers in the maker's unit, all one way", () => {
    expect(typedLengths(steps, "mm")).toEqual(["40", "43", "46"]);
    expect(typedLengths(steps, "in")).toEqual(["1.575", "1.693", "1.811"]);
    expect(typedLengths([25.4, 50.8, 44.45], "in")).toEqual(["1", "2", "1 3/4"]);
    // One that is no fraction makes all of them decimals.
    expect(typedLengths([25.4, 40], "in")).toEqual(["1.000", "1.575"]);
  });

  it("changes no other when one is added", () => {
    expect(keptLengths("1.575, 1.693, 1.811, 2 3/4", steps, "in")).toEqual([40, 43, 46, "2 3/4"]);
    expect(keptLengths("1.575, 1.811", steps, "in")).toEqual([40, 46]);
    expect(keptLengths("40  43  46  70", steps, "mm")).toEqual([40, 43, 46, "70"]);
    expect(keptLengths("40 43 46, 2 in", steps, "mm")).toEqual([40, 43, 46, "2 in"]);
    expect(keptLengths("", steps, "in")).toEqual([]);
  });

  it("tells a fraction from the next length", () => {
    expect(keptLengths("1 3/4 2 1/2 3", [], "in")).toEqual(["1 3/4", "2 1/2", "3"]);
    expect(keptLengths("70 mm; 1/2 in", [], "in")).toEqual(["70 mm", "1/2 in"]);
  });
});
