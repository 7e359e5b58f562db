import { describe, expect, it } from "vitest";
import type { Day } from "../api/client";
import {
  barText,
  daysOf,
  dayName,
  drawn,
  figuresAt,
  goesOf,
  hoursOf,
  minutesText,
  moved,
  offsetOf,
  orderOf,
  placeOf,
} from "./day";

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

  it("has no figures that lie over others, or off its end", () => {
    expect(figuresAt([0, 100, 200], 200)).toEqual([3, 103, 158]);
    expect(figuresAt([0, 74, 148], 150)).toEqual([3, 77, null]);
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

  it("is one of several whose goes are done in turn", () => {
    const both = lanes(
      [placed(at(2, 9), at(2, 9, 10)), placed(at(2, 10), at(2, 10, 5))],
      [placed(at(2, 9, 10), at(2, 9, 20)), placed(at(2, 9, 20), at(2, 9, 30))],
    );
    const order = orderOf(both);
    expect(order.map((go) => [go.piece, go.at.slice(11, 16), go.titles.length])).toEqual([
      [0, "09:00", 1],
      [1, "09:10", 2],
      [0, "10:00", 1],
    ]);
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

describe("a bar", () => {
  const steps = (count: number) => `${count} steps`;

  it("has its step where there is room, else how many there are, else nothing", () => {
    expect(barText(["Wind the coil"], 200, steps)).toBe("Wind the coil");
    expect(barText(["Wind the coil", "Trim"], 200, steps)).toBe("Wind the coil + 1");
    expect(barText(["Wind the long coil", "Trim"], 110, steps)).toBe("Wind the… + 1");
    expect(barText(["Wind the long coil", "Trim"], 70, steps)).toBe("2 steps");
    expect(barText(["Wind the long coil", "Trim"], 30, steps)).toBe("");
  });
});

describe("moments", () => {
  it("are read in the zone that the server wrote them in", () => {
    expect(offsetOf("2026-11-02T09:00:00+05:30")).toBe(5.5 * HOUR);
    expect(offsetOf("2026-11-02T09:00:00-03:00")).toBe(-3 * HOUR);
    expect(offsetOf("2026-11-02T09:00:00Z")).toBe(0);
    expect(dayName("2026-11-02T23:30:00+05:30")).toMatch(/^Mon,? 2 Nov$/);
  });
});
