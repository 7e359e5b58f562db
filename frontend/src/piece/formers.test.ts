import { describe, expect, it } from "vitest";
import type { Plan } from "../api/client";
import { placeKey, sameRows } from "./formers";

const bend = (label: string, pin: number, tool_mm: number | null, more_mm = 0) =>
  ({
    id: label,
    label,
    pin,
    tool: "pliers",
    tool_mm,
    opens_to_mm: pin * 1.02,
    more_mm,
  }) as unknown as Plan["bends"][number];

describe("bends in the table", () => {
  it("that are made at one place are one row with all their names", () => {
    const rows = sameRows([
      bend("left loop", 3, 3),
      bend("tip", 2, 2),
      bend("right loop", 3, 3),
      bend("left loop", 3, 3),
    ]);
    expect(rows.map((row) => row.labels)).toEqual([["left loop", "right loop"], ["tip"]]);
  });

  it("on another pin stay rows of their own, on the same step too", () => {
    expect(sameRows([bend("a", 3, 3), bend("b", 3.1, 3)])).toHaveLength(2);
  });
});

it.each([
  [0.3, "takes_more"],
  [-3.1, "takes_less"],
  [0.04, null],
] as const)("%d mm more wire is said as %s", (more, key) => {
  expect(placeKey(bend("eye", 7, 6, more))).toBe(key);
});
