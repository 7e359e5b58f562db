import { describe, expect, it } from "vitest";
import type { WovenShown } from "../api/client";
import {
  begun,
  boxOf,
  distances,
  EDGE,
  END,
  FACE,
  further,
  laid,
  rowsIn,
  seen,
  turned,
  windowAt,
  within,
  type Place,
  fromMiddle,
} from "./woven";

/** Two bars, a wire in front of the first row and behind the second, a bead in each row. */
const shown = {
  entry: "e1",
  label: "ladder",
  rows: 9,
  row_name: "row",
  cell_rows: 2,
  advance_mm: 4,
  over: false,
  strands: [
    { role: "bar", wire_mm: 1, colour: "#aaa", row: 0, rows: 0, points: [[0, 3, 0], [4, 3, 0]] },
    {
      role: "working",
      wire_mm: 0.4,
      colour: "#c63",
      row: 0,
      rows: 1,
      points: [[0, 3, 1], [0, 1, 1], [0, -1, 1], [0, -3, 1]],
    },
    {
      role: "working",
      wire_mm: 0.4,
      colour: "#c63",
      row: 1,
      rows: 1,
      points: [[2, -3, -1], [2, 3, -1]],
    },
  ],
  beads: [
    { at: [1, 0, 0], across_mm: 2, along_mm: 3, lengthwise: false, colour: "reed", row: 0 },
    { at: [3, 0, 0], across_mm: 2, along_mm: 3, lengthwise: false, colour: "reed", row: 1 },
  ],
} as unknown as WovenShown; // prettier-ignore

const close = (place: Place, to: number[]) =>
  place.forEach((value, n) => expect(value).toBeCloseTo(to[n] ?? NaN, 9));

describe("turning a body by hand", () => {
  it("looks at its face, its edge and its end", () => {
    close(turned([1, 2, 3], FACE), [1, 2, 3]);
    // From the edge the upper side comes to the front.
    close(turned([1, 2, 3], EDGE), [1, 3, -2]);
    close(turned([1, 2, 3], END), [3, 2, -1]);
  });

  it("keeps lengths, whatever the turn", () => {
    const [x, y, z] = turned([3, -4, 12], { roll: 37, yaw: -111 });
    expect(Math.hypot(x, y, z)).toBeCloseTo(13, 9);
  });

  it("comes round again", () => {
    expect(further({ roll: 170, yaw: -175 }, 20, -10)).toEqual({ roll: -170, yaw: 175 });
  });
});

describe("pegs of a board", () => {
  it("are one distance where all are alike", () => {
    expect(distances([-9, -3, 3, 9])).toEqual([6]);
    expect(distances([0])).toEqual([]);
  });

  it("are each told where they differ", () => {
    expect(distances([0, 6, 16])).toEqual([6, 10]);
  });
});

describe("rows in view", () => {
  it("ends at the row that is worked on, in whole cells", () => {
    expect(windowAt(shown, 0, 4)).toEqual({ first: 0, count: 4 });
    expect(windowAt(shown, 5, 4)).toEqual({ first: 2, count: 4 });
    expect(windowAt(shown, 9, 4)).toEqual({ first: 6, count: 4 });
  });

  it("counts the rows of a length", () => {
    expect(rowsIn(shown, 30)).toBe(15);
    expect(rowsIn(shown, 0.2)).toBe(1);
  });

  it("shows no more than there is, and a cell at least", () => {
    expect(windowAt(shown, 3, 100)).toEqual({ first: 0, count: 10 });
    expect(windowAt(shown, 3, 1)).toEqual({ first: 2, count: 2 });
  });
});

describe("what is laid so far", () => {
  it("goes by rows, a strand of several rows by its share", () => {
    expect(laid(2, 1, 2)).toBe(0);
    expect(laid(2, 1, 2.25)).toBe(0.25);
    expect(laid(0, 4, 3)).toBe(0.75);
    expect(laid(5, 0, 0)).toBe(1);
  });

  it("is the first part of its line", () => {
    const line: Place[] = [
      [0, 0, 0],
      [2, 0, 0],
      [2, 2, 0],
    ];
    expect(begun(line, 0)).toEqual([]);
    expect(begun(line, 0.75)).toEqual([
      [0, 0, 0],
      [2, 0, 0],
      [2, 1, 0],
    ]);
    expect(begun(line, 1)).toHaveLength(3);
  });

  it("holds no bead of a row that is not begun", () => {
    const beads = (upto: number) =>
      seen(shown, { first: 0, count: 4 }, upto, FACE).filter((one) => one.kind === "bead").length;
    expect([beads(0), beads(0.5), beads(1), beads(4), beads(99)]).toEqual([0, 1, 1, 4, 4]);
  });
});

describe("over and under", () => {
  const all = seen(shown, { first: 0, count: 2 }, 2, FACE);

  it("draws the furthest first", () => {
    const depths = all.map((one) => one.depth);
    expect(depths).toEqual([...depths].sort((a, b) => a - b));
    const wires = all.filter((one) => one.kind === "wire" && !one.holds);
    expect(wires[0]?.points[0]?.[2]).toBe(-1);
    expect(wires.at(-1)?.points[0]?.[2]).toBe(1);
  });

  it("turns front to back when it is turned over", () => {
    const over = seen(shown, { first: 0, count: 2 }, 2, { roll: 180, yaw: 0 });
    const wires = over.filter((one) => one.kind === "wire" && !one.holds);
    expect(wires[0]?.points[0]?.[2]).toBeCloseTo(-1);
    expect(wires[0]?.points[0]?.[0]).toBeCloseTo(0);
  });

  it("leaves out the wire in a bead's hole, where it does not run over it", () => {
    const bead = shown.beads[0] as (typeof shown.beads)[number];
    expect(within(bead, [1, 1, 0])).toBe(true);
    expect(within(bead, [1, 1.6, 0])).toBe(false);
    const through = {
      ...shown,
      strands: [
        {
          ...shown.strands[1],
          points: [
            [1, 3, 0],
            [1, 2, 0],
            [1, 1, 0],
            [1, 0, 0],
            [1, -1, 0],
          ],
        },
      ],
    } as unknown as WovenShown;
    const wires = (one: WovenShown) =>
      seen(one, { first: 0, count: 2 }, 1, FACE).filter((piece) => piece.kind === "wire").length;
    expect(wires({ ...through, over: true })).toBeGreaterThan(wires(through));
  });

  it("leaves out the base wire in its beads", () => {
    const base = {
      ...shown,
      strands: [{ ...shown.strands[0], points: [[0, 0, 0], [4, 0, 0]] }],
    } as unknown as WovenShown; // prettier-ignore
    const bars = (upto: number) =>
      seen(base, { first: 0, count: 2 }, upto, FACE).filter((one) => one.holds).length;
    expect(bars(2)).toBeLessThan(bars(0) - 3);
  });

  it("shows a long bead shorter when it is looked at along its hole", () => {
    const bead = (roll: number) =>
      seen(shown, { first: 0, count: 2 }, 2, { roll, yaw: 0 }).find((one) => one.kind === "bead");
    expect(bead(0)?.long).toBeCloseTo(3);
    expect(bead(-90)?.long).toBeCloseTo(2);
  });

  it("draws bars through all cells, a little longer than they are", () => {
    const bars = seen(shown, { first: 0, count: 4 }, 4, FACE).filter((one) => one.holds);
    const xs = bars.flatMap((one) => one.points.map(([x]) => x));
    expect(Math.min(...xs)).toBeCloseTo(-1);
    expect(Math.max(...xs)).toBeCloseTo(9);
    const bowed = {
      ...shown,
      strands: [{ ...shown.strands[0], points: [[0, 3, 0], [2, 5, 0], [4.1, 3, 0]] }],
    } as unknown as WovenShown; // prettier-ignore
    const cores = seen(bowed, { first: 0, count: 4 }, 4, FACE).filter((one) => one.holds);
    expect(cores).toHaveLength(4);
    expect(Math.max(...cores.flatMap((one) => one.points.map(([x]) => x)))).toBeCloseTo(8.1);
  });

  it("knows how much room it takes", () => {
    const { low, high } = boxOf(all);
    expect(high[1]).toBeCloseTo(3.5);
    expect(low[1]).toBeCloseTo(-3.2);
    expect(boxOf([])).toEqual({ low: [0, 0], high: [1, 1] });
  });
});

it("marks alike on both sides of the middle are told once, from the middle outwards", () => {
  expect(fromMiddle([5, 30.04, 60, 89.96, 115], 120)).toEqual([0, 30, 55]);
  expect(fromMiddle([], 120)).toEqual([]);
});
