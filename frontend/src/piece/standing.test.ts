import { describe, expect, it } from "vitest";

import type { Plan, Standing } from "../api/client";
import {
  changesOf,
  cutGroups,
  cutOf,
  isDone,
  isSettled,
  offAlike,
  standsFor,
  unsettled,
} from "./standing";

type Cut = Plan["cuts"][number];
type Step = Plan["steps"][number];
type Wire = NonNullable<Standing["wires"]>[number];

const cut = (id: string, quantity: number, alike = "") =>
  ({ id, quantity, alike, length_mm: 60 }) as unknown as Cut;
const wire = (key: string, verdict: string, known = false) =>
  ({ key, verdict, known }) as unknown as Wire;
const step = (id: string, of?: string[]) => ({ id, of }) as unknown as Step;

describe("wires that are cut alike", () => {
  it("stand together, and say how many are still open of all", () => {
    const cuts = [cut("e1/wire", 2), cut("e2/wire", 3, "e1/wire"), cut("e3/wire", 1)];
    const open = ["e1/wire#1", "e2/wire#0", "e2/wire#2", "e3/wire#0"];
    const groups = cutGroups(cuts, open);
    expect(groups.map((one) => [one.cut.id, one.quantity, one.open])).toEqual([
      ["e1/wire", 5, 3],
      ["e3/wire", 1, 1],
    ]);
  });

  it("are told by their cut, not by the beginning of its name", () => {
    expect(cutOf("e1/wire#12")).toBe("e1/wire");
    expect(cutOf("e1/wire")).toBe("e1/wire");
    const [one, ten] = cutGroups([cut("e1/wire", 1), cut("e10/wire", 1)], ["e10/wire#0"]);
    expect([one?.open, ten?.open]).toEqual([0, 1]);
  });
});

describe("wires that no longer suit", () => {
  it("come with what can be put right first, and without what is settled", () => {
    const standing = {
      wires: [
        wire("a", "not_needed"),
        wire("b", "right"),
        wire("c", "short"),
        wire("d", "long"),
        wire("e", "long", true),
        wire("f", "other_wire"),
      ],
    } as unknown as Standing;
    expect(unsettled(standing).map((one) => one.key)).toEqual(["d", "c", "f", "a"]);
    expect(isSettled(wire("x", "short", true))).toBe(true);
    expect(isSettled(wire("x", "short"))).toBe(false);
  });

  it("are none where nothing was cut", () => {
    expect(unsettled({})).toEqual([]);
  });
});

describe("wires that are off alike", () => {
  const off = (key: string, actual: number, wanted: number | null, verdict = "short") =>
    ({ key, verdict, actual_mm: actual, wanted_mm: wanted }) as unknown as Wire;

  it("stand in one row, those of another cut, length or verdict in their own", () => {
    const rows = offAlike([
      off("e1/wire#1", 80.857, 87.1),
      off("e1/wire#2", 80.859, 87.1),
      off("e1/wire#3", 79, 87.1),
      off("e1/wire#4", 80.857, null, "not_needed"),
      off("e2/wire#1", 80.857, 87.1),
    ]);
    expect(rows.map((row) => row.map((one) => one.key))).toEqual([
      ["e1/wire#1", "e1/wire#2"],
      ["e1/wire#3"],
      ["e1/wire#4"],
      ["e2/wire#1"],
    ]);
  });
});

describe("steps that stand for several", () => {
  it("are done when they are done for every entry", () => {
    const both = step("e1/form", ["e1/form", "e2/form"]);
    expect(standsFor(both)).toEqual(["e1/form", "e2/form"]);
    expect(standsFor(step("solder"))).toEqual(["solder"]);
    expect(isDone(both, new Set(["e1/form"]))).toBe(false);
    expect(isDone(both, new Set(["e1/form", "e2/form", "x"]))).toBe(true);
  });

  it("name each change once, of their own only", () => {
    const standing = {
      steps: [
        { key: "e1/form", verdict: "changed", changes: ["pin", "order"] },
        { key: "e2/form", verdict: "changed", changes: ["pin"] },
        { key: "e3/form", verdict: "changed", changes: ["place"] },
        { key: "e1/form", verdict: "gone", changes: ["gone"] },
      ],
    } as unknown as Standing;
    expect(changesOf(step("e1/form", ["e1/form", "e2/form"]), standing)).toEqual(["pin", "order"]);
  });
});
