import { describe, expect, it } from "vitest";
import { choicesShown, inTwo } from "./choicesShown";

const CHOICES = [
  { name: "loops", default: "wrapped" },
  { name: "ends_in", default: "away", if_field: "loops", if_values: ["wrapped"] },
  { name: "swirl_turns", default: 2, if_field: "ends_in", if_values: ["swirl"] },
  { name: "charms", default: 0 },
  { name: "charm_width", default: 8, if_field: "charms" },
  { name: "drilled", default: false },
  { name: "edge", default: 2, if_field: "drilled", if_values: ["true"] },
  { name: "alone", default: 1, if_field: "elsewhere", if_values: ["x"] },
];
const names = (value: Record<string, unknown>) =>
  choicesShown(CHOICES, value).map((one) => one.name);

describe("what is asked", () => {
  it("is what matters with the defaults", () => {
    expect(names({})).toEqual(["loops", "ends_in", "charms", "drilled", "alone"]);
  });

  it("follows what is chosen, as typed", () => {
    expect(names({ ends_in: "swirl" })).toContain("swirl_turns");
    expect(names({ charms: "3" })).toContain("charm_width");
    expect(names({ charms: "0" })).not.toContain("charm_width");
    expect(names({ drilled: true })).toContain("edge");
  });

  it("leaves out what hangs on something that does not matter", () => {
    expect(names({ loops: "plain", ends_in: "swirl" })).not.toContain("swirl_turns");
  });
});

describe("what is shown first", () => {
  const named = (some: { name: string }[]) => some.map((one) => one.name);
  const many = ["a", "b", "c", "d", "e", "f", "g"].map((name) => ({ name, default: 1 }));
  const marked = many.map((one) => ({ ...one, first: "beg".includes(one.name) }));
  const right = () => false;

  it("is what the kind names, or all where it names none of these", () => {
    expect(named(inTwo(many, {}, right).more)).toEqual([]);
    expect(named(inTwo(marked, {}, right).first)).toEqual(["b", "e", "g"]);
    expect(named(inTwo(marked, {}, right).more)).toEqual(["a", "c", "d", "f"]);
  });

  it("shows what matters because of what was chosen with it", () => {
    const hung = [...marked, { name: "h", default: 1, if_field: "b", if_values: ["1", "2"] }];
    expect(named(inTwo(hung, {}, right).more)).toContain("h");
    expect(named(inTwo(hung, { b: "2" }, right).first)).toEqual(["b", "e", "g", "h"]);
  });

  it("leaves the others open where one is chosen otherwise than usual, or is wrong", () => {
    expect(inTwo(marked, {}, right).open).toBe(false);
    expect(inTwo(marked, { b: "2" }, right).open).toBe(false);
    expect(inTwo(marked, { c: "1" }, right).open).toBe(false);
    expect(inTwo(marked, { c: "2" }, right).open).toBe(true);
    expect(inTwo(marked, {}, (one) => one.name === "d").open).toBe(true);
  });
});
