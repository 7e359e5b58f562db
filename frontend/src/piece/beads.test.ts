import { describe, expect, it } from "vitest";
import { countOf, listFrom, oneMore, shifted, stillAsked } from "./beads";

const USUAL = {
  kind: "linked_bead",
  bead: 6,
  bead_length: null,
  hole: 1,
  stuff: "glass",
  beads: 1,
};

describe("a list of beads", () => {
  it("begins with the one bead that the part had, as often as it had it", () => {
    expect(listFrom({ kind: "linked_bead", bead: "8", beads: 3 }, USUAL)).toEqual([
      { bead: "8", hole: 1, stuff: "glass", times: 3 },
    ]);
    expect(listFrom({ kind: "linked_bead" }, USUAL)).toEqual([
      { bead: 6, hole: 1, stuff: "glass" },
    ]);
  });

  it("goes on with one like the last, once", () => {
    const beads = [{ bead: 3 }, { bead: 6, times: 4 }];
    expect(oneMore(beads)).toEqual([...beads, { bead: 6 }]);
    expect(oneMore([])).toEqual([{}]);
  });

  it("keeps every bead while they change places", () => {
    const beads = ["small", "pearl", "large"];
    expect(shifted(beads, 0, 1)).toEqual(["pearl", "small", "large"]);
    expect(shifted(beads, 2, -1)).toEqual(["small", "large", "pearl"]);
    expect(shifted(beads, 0, -1)).toEqual(beads);
    expect(shifted(beads, 2, 1)).toEqual(beads);
    expect(shifted(shifted(beads, 1, 1), 2, -1)).toEqual(beads);
  });

  it("counts what is typed, and what is no number once", () => {
    expect(countOf([{ times: 2 }, {}, { times: "3" }, { times: "some" }])).toBe(7);
    expect(countOf([])).toBe(0);
  });

  it("leaves the part's own bead unasked, and all else asked", () => {
    const choices = ["bead", "hole", "beads", "pin", "wraps"].map((name) => ({ name }));
    expect(stillAsked(choices, true).map((one) => one.name)).toEqual(["pin", "wraps"]);
    expect(stillAsked(choices, false)).toEqual(choices);
  });
});
