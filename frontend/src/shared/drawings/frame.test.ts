import { readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

import type { Sheet } from "../../api/client";
import {
  asSent,
  asHeld,
  copies,
  eachPlaced,
  flipped,
  frame,
  pathThrough,
  place,
  pointsOf,
  setDown,
  shapesOf,
  smoothPath,
  upright,
  type Placed,
  type Stroke,
} from "./frame";

const stroke = (points: [number, number][], more: object = {}) =>
  ({ points: asHeld(points), width_mm: 0, ...more }) as unknown as Stroke;
const placed = (more: object) => ({ shape: "s", at: [0, 0], ...more }) as unknown as Placed;

describe("the points of a stroke", () => {
  it("are the first and the steps to each next, in hundredths of a millimetre", () => {
    const points = [1050, -200, -50, 25, 0, 75];
    expect(pointsOf({ points })).toEqual([
      [10.5, -2],
      [10, -1.75],
      [10, -1],
    ]);
  });
});

describe("a line on the screen", () => {
  const numbers = (path: string) => (path.match(/-?[\d.]+/g) ?? []).map(Number);

  it("goes straight from corner to corner", () => {
    const square: [number, number][] = [
      [0, 0],
      [90, 0],
      [90, 90],
      [0, 90],
    ];
    const found = smoothPath(square, true);
    // The handles of each side lie on it, a third of it from each end.
    expect(found).toContain("C30.0 0.0 60.0 0.0 90.0 0.0");
    expect(found).toContain("C90.0 30.0 90.0 60.0 90.0 90.0");
    expect(found.endsWith("Z")).toBe(true);
  });

  it("goes round where it turns little: the middle of each piece lies on the circle", () => {
    const circle = Array.from({ length: 48 }, (_, i): [number, number] => {
      const turn = (2 * Math.PI * i) / 48;
      return [500 * Math.cos(turn), 500 * Math.sin(turn)];
    });
    const [x0 = 0, y0 = 0, ...rest] = numbers(smoothPath(circle, true));
    const [x1 = 0, y1 = 0, x2 = 0, y2 = 0, x3 = 0, y3 = 0] = rest;
    const middle = [(x0 + 3 * x1 + 3 * x2 + x3) / 8, (y0 + 3 * y1 + 3 * y2 + y3) / 8] as const;
    expect(Math.hypot(...middle)).toBeCloseTo(500, 0);
  });

  it("begins and ends where its points do", () => {
    const line: [number, number][] = [
      [0, 0],
      [30, 3],
      [60, 0],
    ];
    const found = numbers(smoothPath(line, false));
    expect(found.slice(0, 2)).toEqual([0, 0]);
    expect(found.slice(-2)).toEqual([60, 0]);
  });
});

interface Smooth {
  what: string;
  points: [number, number][];
  closed: boolean;
  curves: number[][][];
}

const SMOOTH = JSON.parse(
  readFileSync(join(__dirname, "../../../../tests/data/smooth_lines.json"), "utf-8"),
) as Smooth[];

// What is printed goes by the same rule, and its test by the same figures, worked out by hand.
it.each(SMOOTH)("on the screen as on paper: $what", ({ points, closed, curves }) => {
  // A hundred times as large: a path is written to tenths.
  const large = points.map(([x, y]): [number, number] => [100 * x, 100 * y]);
  const found = (smoothPath(large, closed).match(/-?[\d.]+/g) ?? []).map(Number);
  const wanted = [...(points[0] ?? []), ...curves.flat(2)];
  expect(found).toHaveLength(wanted.length);
  found.forEach((value, i) => expect(value / 100).toBeCloseTo(wanted[i] ?? NaN, 2));
});

describe("what is drawn many times", () => {
  it("is a stroke moved on by its step", () => {
    const three = copies(stroke([[1, 2]], { times: 3, step: [10, -1] }));
    expect(three).toEqual([[[1, 2]], [[11, 1]], [[21, 0]]]);
    expect(copies(stroke([[1, 2]]))).toEqual([[[1, 2]]]);
  });

  it("is a shape set down at its pitch", () => {
    const row = eachPlaced([
      placed({ at: [5, 1], times: 3, pitch_mm: 4 }),
      placed({ at: [50, 0] }),
    ]);
    expect(row.map((one) => one.at)).toEqual([
      [5, 1],
      [9, 1],
      [13, 1],
      [50, 0],
    ]);
  });

  it("is turned end for end where it is mirrored, one of no length about itself", () => {
    expect(flipped(placed({ mirrored: true, length_mm: 8 }))).toBe(" translate(8 0) scale(-1 1)");
    expect(flipped(placed({ mirrored: true }))).toBe(" translate(0 0) scale(-1 1)");
    expect(flipped(placed({}))).toBe("");
  });

  it("is turned about its own length when mirrored", () => {
    expect(setDown(placed({ at: [100, 2] }), [3, 1])).toEqual([103, 3]);
    expect(setDown(placed({ at: [100, 2], mirrored: true, length_mm: 10 }), [3, 1])).toEqual([
      107, 3,
    ]);
  });
});

describe("a sheet in its box", () => {
  const sheet = (more: object) => more as unknown as Sheet;

  it("fits across, y upwards", () => {
    const wide = frame(
      sheet({
        strokes: [
          stroke([
            [0, 0],
            [100, 10],
          ]),
        ],
      }),
      548,
      300,
    );
    expect(wide.scale).toBeCloseTo(5, 9);
    expect(place(wide, [50, 5])).toEqual([274, 150]);
    expect(place(wide, [50, 10])[1]).toBeLessThan(150);
  });

  it("puts each stroke of a shape where the shape has it", () => {
    // Two shapes of one stroke, a step of (3, 4) mm: one begins at (1, 2), one at (5, -2).
    const sent = {
      strokes: [{ part: "wire", points: [0, 0, 300, 400] }],
      made: { a: [0, 100, 200], b: [0, 500, -200, 0, 0, 0] },
    };
    const found = shapesOf({ shapes: sent });
    expect(found.a?.map(pointsOf)).toEqual([
      [
        [1, 2],
        [4, 6],
      ],
    ]);
    expect(found.b?.map((stroke) => pointsOf(stroke)[1])).toEqual([
      [8, 2],
      [3, 4],
    ]);
    expect(shapesOf({ shapes: asSent(found) })).toEqual(found);
  });

  it("takes repeated shapes, wire width and dimension lines into account", () => {
    const shapes = {
      s: [
        stroke(
          [
            [0, 0],
            [10, 0],
          ],
          { width_mm: 2 },
        ),
      ],
    };
    const once = sheet({ shapes: asSent(shapes), placed: [placed({})] });
    const often = sheet({ shapes: asSent(shapes), placed: [placed({ times: 10, pitch_mm: 10 })] });
    expect(frame(once, 348, 900).scale).toBeCloseTo(300 / 12, 9);
    expect(frame(often, 348, 900).scale).toBeCloseTo(300 / 102, 9);
    const line = { a: [0, 0], b: [10, 0], offset_mm: 29 };
    const tall = sheet({ shapes: asSent(shapes), placed: [placed({})], dimensions: [line] });
    expect(frame(tall, 900, 360).scale).toBeCloseTo(300 / 30, 9);
  });

  it("leaves room for words that start at a place", () => {
    const strokes = [
      stroke([
        [0, 0],
        [100, 1],
      ]),
    ];
    const plain = frame(sheet({ strokes }), 670, 400);
    const worded = frame(sheet({ strokes, labels: [{ anchor: "start" }] }), 670, 400);
    expect(plain.scale - worded.scale).toBeCloseTo(1.22, 9);
  });
});

describe("a path through points", () => {
  const circle = (count: number): [number, number][] =>
    Array.from({ length: count }, (_, i) => {
      const turn = (2 * Math.PI * i) / count;
      return [5 * Math.cos(turn), 5 * Math.sin(turn)];
    });

  it("keeps corners where there are few", () => {
    expect(
      pathThrough(
        [
          [0, 0],
          [4, 0],
          [4, 3],
        ],
        true,
      ),
    ).toBe("M0 0L4 0L4 -3Z");
    expect(pathThrough(circle(12), false)).not.toContain("C");
  });

  it("runs round through many, and its curves stay on the circle", () => {
    const path = pathThrough(circle(12), true);
    const curves = [...path.matchAll(/C(\S+) (\S+) (\S+) (\S+) (\S+) ([^C ]+?)(?=C|Z)/g)];
    expect(curves).toHaveLength(12);
    let from: [number, number] = [5, 0];
    for (const [, ax, ay, bx, by, cx, cy] of curves) {
      const [a, b, c] = [
        [Number(ax), Number(ay)],
        [Number(bx), Number(by)],
        [Number(cx), Number(cy)],
      ] as [number, number][];
      // The middle of a cubic curve.
      const middle = [0, 1].map(
        (k) => ((from[k] ?? 0) + 3 * (a?.[k] ?? 0) + 3 * (b?.[k] ?? 0) + (c?.[k] ?? 0)) / 8,
      ) as [number, number];
      expect(Math.hypot(...middle)).toBeCloseTo(5, 1);
      from = c as [number, number];
    }
  });
});

it("gives an upright dimension its room at the left", () => {
  const sheet = {
    strokes: [
      stroke([
        [0, 0],
        [10, 10],
      ]),
    ],
    dimensions: [{ a: [0, 2], b: [0, 8], value_mm: 6, label: "gap", offset_mm: 10 }],
  } as unknown as Sheet;
  expect(upright([0, 2], [0, 8])).toBe(true);
  expect(upright([0, 2], [8, 2])).toBe(false);
  const wide = frame(sheet, 448, 1000);
  // Twenty millimetres across what is left of 448 px.
  expect(wide.scale).toBeCloseTo(400 / 20);
});
