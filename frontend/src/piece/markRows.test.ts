import { describe, expect, it } from "vitest";
import { markRows, type Words } from "./markRows";

const words = (...rows: [number, number][]): Words[] => rows.map(([x, wide]) => ({ x, wide }));

function spans(marks: Words[], width: number) {
  return markRows(marks, width).map(({ row, anchor }, i) => {
    const { x, wide } = marks[i]!;
    return {
      row,
      x,
      from: anchor === "start" ? x : x - wide,
      to: anchor === "start" ? x + wide : x,
    };
  });
}

describe("words under a wire", () => {
  it("stand in one row where there is room", () => {
    const rows = markRows(words([20, 90], [310, 90], [580, 90]), 600);
    expect(rows.map((one) => one.row)).toEqual([0, 0, 0]);
    expect(rows.map((one) => one.anchor)).toEqual(["start", "end", "end"]);
  });

  it("go lower the further out they begin", () => {
    expect(markRows(words([20, 150], [60, 150], [110, 150]), 900).map((one) => one.row)).toEqual([
      2, 1, 0,
    ]);
    const right = markRows(words([760, 150], [800, 150], [880, 150]), 900);
    expect(right.map((one) => [one.row, one.anchor])).toEqual([
      [0, "end"],
      [1, "end"],
      [2, "end"],
    ]);
  });

  it.each([400, 560, 900])("never lie over each other, nor run off, on %i px", (width) => {
    const places = [0.01, 0.06, 0.12, 0.3, 0.47, 0.5, 0.52, 0.7, 0.93, 0.99];
    const found = spans(
      places.map((at, i) => ({ x: at * width, wide: 90 + (i % 3) * 40 })),
      width,
    );
    for (const [i, a] of found.entries())
      for (const b of found.slice(i + 1))
        if (a.row === b.row) expect(a.to <= b.from || b.to <= a.from).toBe(true);
    expect(found.every((one) => one.from >= 0 && one.to <= width)).toBe(true);
  });
});
