import { describe, expect, it } from "vitest";

import { asNumber, asText, differences, withValue } from "./draft";

describe("setting a value in what is typed", () => {
  it("copies what it passes and leaves the rest as it was", () => {
    const brief = { wire: { metal: "copper" }, piece: { length: "160" } };
    const next = withValue(brief, ["wire", "metal"], "brass");
    expect(next).toEqual({ wire: { metal: "brass" }, piece: { length: "160" } });
    expect(brief.wire.metal).toBe("copper");
    expect(next.piece).toBe(brief.piece);
  });

  it("makes levels that are missing: lists for numbers, objects for names", () => {
    expect(withValue({}, ["piece", "entries", 0, "times"], 3)).toEqual({
      piece: { entries: [{ times: 3 }] },
    });
    expect(withValue(null, ["a"], 1)).toEqual({ a: 1 });
  });

  it("replaces the whole where there is no path", () => {
    expect(withValue({ a: 1 }, [], { b: 2 })).toEqual({ b: 2 });
  });

  it("sets an element of a list", () => {
    expect(withValue([1, 2, 3], [1], 9)).toEqual([1, 9, 3]);
  });
});

describe("figures as typed", () => {
  it.each([
    ["12", 12],
    [" 1,5 ", 1.5],
    ["", undefined],
    ["-3", -3],
    ["about 3", "about 3"],
  ])("%j becomes %j", (typed, value) => {
    expect(asNumber(typed)).toBe(value);
  });

  it("shows nothing for what is not there, and a nought as one", () => {
    expect([asText(null), asText(undefined), asText(0), asText("x")]).toEqual(["", "", "0", "x"]);
  });
});

describe("two versions side by side", () => {
  it("names what differs, and a dash where one has nothing", () => {
    const mine = { wire: { size: "16 awg" }, piece: { entries: [{ times: 2 }, { times: 1 }] } };
    const theirs = { wire: { size: "18 awg" }, piece: { entries: [{ times: 2 }] } };
    expect(differences(mine, theirs)).toEqual([
      { path: "wire.size", mine: "16 awg", theirs: "18 awg" },
      { path: "piece.entries.1.times", mine: "1", theirs: "–" },
    ]);
  });

  it("finds nothing between what reads the same", () => {
    expect(differences({ a: "1", b: null }, { a: 1 })).toEqual([]);
  });
});
