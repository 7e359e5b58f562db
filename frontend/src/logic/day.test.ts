import { describe, expect, it } from "vitest";
import type { Day } from "../api/client";
import { daysOf, drawn, goesOf, hoursOf, minutesText, moved, placeOf } from "./day";

const HOUR = 3_600_000;
const at = (day: number, hour: number, minute = 0) =>
  `2026-11-0${day}T${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}:00+00:00`;
const placed = (start: string, end: string, free = end, title = "step") =>
  ({ task: title, title, start, end, free, part: 1, parts: 1 }) as never;
const lanes = (...rows: unknown[][]) =>
  rows.map((row, i) => ({ piece_id: i, placed: row })) as unknown as Day["lanes"];

describe("the strip of a day", () => {
  const two = lanes(
    [placed(at(2, 9, 10), at(2, 10)), placed(at(3, 9), at(3, 9, 30))],
    [placed(at(2, 10), at(2, 11, 50), at(3, 8))],
  );
  const days = daysOf(two);

  it("has whole hours of every day with work, nights left out", () => {
    expect(days).toEqual([
      { from: Date.parse(at(2, 9)), to: Date.parse(at(2, 12)) },
      { from: Date.parse(at(3, 9)), to: Date.parse(at(3, 10)) },
    ]);
  });

  it("puts every moment at its place, and none of the night anywhere", () => {
    expect(placeOf(days, Date.parse(at(2, 9)))).toBe(0);
    expect(placeOf(days, Date.parse(at(2, 10, 30)))).toBeCloseTo(1.5 / 4);
    expect(placeOf(days, Date.parse(at(3, 9, 30)))).toBeCloseTo(3.5 / 4);
    expect(placeOf(days, Date.parse(at(2, 20)))).toBeNull();
  });

  it("cuts a wait off where the night begins", () => {
    const wait = { from: Date.parse(at(2, 11)), to: Date.parse(at(3, 8)) };
    expect(drawn(days, wait)).toEqual({ at: 0.5, long: 0.25 });
    expect(drawn(days, { from: 0, to: HOUR })).toBeNull();
  });

  it("has as many hour marks as there is room for", () => {
    expect(hoursOf(days).length).toBe(6);
    expect(hoursOf(days, 3).length).toBe(3);
  });
});

describe("a lane", () => {
  it("draws steps without a break or a wait between them as one", () => {
    const goes = goesOf([
      placed(at(2, 9), at(2, 9, 10), undefined, "cut"),
      placed(at(2, 9, 10), at(2, 9, 20), at(2, 9, 40), "glue"),
      placed(at(2, 9, 40), at(2, 9, 50), undefined, "try on"),
    ]);
    expect(goes.map((one) => one.titles)).toEqual([["cut", "glue"], ["try on"]]);
    expect(goes[0]?.free).toBe(Date.parse(at(2, 9, 40)));
  });

  it("is dragged to another place", () => {
    expect(moved([1, 2, 3], 3, 0)).toEqual([3, 1, 2]);
    expect(moved([1, 2, 3], 1, 2)).toEqual([2, 3, 1]);
  });
});

it("says minutes as a maker would", () => {
  expect([25, 185, 24 * 60, 3000].map(minutesText)).toEqual([
    "25 min",
    "3 h 05 min",
    "24 h 00 min",
    "2 days",
  ]);
});
