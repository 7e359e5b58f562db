import { describe, expect, it } from "vitest";

import type { Reading } from "../api/client";
import {
  fromOneField,
  inOneField,
  mannerOf,
  sameReadings,
  withManner,
  withReading,
} from "./readings";

const NOW = "2026-11-30T09:00:00Z";
const strap = (value: string): Reading => ({
  value,
  method: "strap",
  thickness: "2",
  posture: "arm hanging",
  taken: "2026-11-02T18:40",
});
const KEPT = [strap("170"), strap("171"), strap("170.5")];

describe("readings of a site in one field", () => {
  it("stay whole where one of them is changed", () => {
    const sent = fromOneField("170 / 172 / 170.5", KEPT, "girth", NOW);
    expect(sent[0]).toEqual(KEPT[0]);
    expect(sent[1]).toEqual({ ...KEPT[1], value: "172", taken: NOW });
    expect(sent[2]).toEqual(KEPT[2]);
    expect(inOneField(sent)).toBe("170 / 172 / 170.5");
  });

  it("take a further one in the manner of the first", () => {
    const [, second] = fromOneField("170;169", KEPT.slice(0, 1), "girth", NOW);
    expect(second).toEqual({ ...strap("169"), taken: NOW });
    expect(fromOneField("152", [], "breadth", NOW)).toEqual([
      { method: "calliper", value: "152", taken: NOW },
    ]);
  });
});

describe("readings slot by slot", () => {
  it("keep all that they have beside a new figure", () => {
    const found = withReading(KEPT, 2, "171.5", mannerOf(KEPT, "girth"), NOW);
    expect(found).toEqual([KEPT[0], KEPT[1], { ...strap("171.5"), taken: NOW }]);
  });

  it("end with the last that has a figure", () => {
    const manner = mannerOf([], "girth");
    expect(withReading(KEPT.slice(0, 1), 0, "", manner, NOW)).toEqual([]);
    const found = withReading([], 1, "160", manner, NOW);
    expect(found).toEqual([
      { method: "tape", value: "" },
      { method: "tape", value: "160", taken: NOW },
    ]);
  });

  it("are all taken in the manner that is chosen", () => {
    const found = withManner(KEPT, { thickness: "3" });
    expect(found.map((one) => one.thickness)).toEqual(["3", "3", "3"]);
    expect(found.map((one) => one.value)).toEqual(["170", "171", "170.5"]);
    expect(withManner([], { method: "string" })).toEqual([{ value: "", method: "string" }]);
  });
});

describe("two lists of readings", () => {
  const same = (part: Partial<Reading>) =>
    sameReadings(KEPT, [{ ...strap("170"), ...part }, ...KEPT.slice(1)]);

  it.each([{ thickness: "3" }, { ease: "6" }, { posture: "fist" }, { method: "tape" } as const])(
    "differ by %j",
    (part) => expect(same(part)).toBe(false),
  );

  it("are the same however the hour or an empty field is written", () => {
    expect(same({ ease: "" })).toBe(true);
    expect(
      sameReadings([{ value: "1", taken: NOW }], [{ value: "1", taken: "2026-11-30T09:00Z" }]),
    ).toBe(true);
    expect(sameReadings(undefined, [{ value: " " }])).toBe(true);
  });
});
