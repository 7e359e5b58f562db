import { describe, expect, it } from "vitest";
import type { ShopTyped } from "../api/client";
import { inUnit } from "./shop";
import { asKindOfTool, shapeOf, TOOL_KINDS } from "./tools";

type Tool = NonNullable<ShopTyped["formers"]>[number];

describe("a tool that becomes another kind", () => {
  const steps: Tool = { name: "pliers", kind: "stepped pliers", diameters: ["2", "3"] };

  it("keeps its name and only what the new kind has", () => {
    expect(asKindOfTool(steps, "flat pliers")).toEqual({ name: "pliers", kind: "flat pliers" });
    const cone = asKindOfTool({ ...steps, tip: "1", base: "5" }, "cone pliers");
    expect(cone).toMatchObject({ tip: "1", base: "5" });
    expect(cone).not.toHaveProperty("diameters");
    expect(asKindOfTool(cone, "dowels")).toMatchObject({ kind: "dowels", diameters: [] });
  });

  it("keeps its oval as a mandrel only", () => {
    const oval: Tool = { name: "m", kind: "stepped mandrel", diameters: ["50"], ratio: 1.2 };
    expect(asKindOfTool(oval, "tapered mandrel")).toMatchObject({ ratio: 1.2 });
    expect(asKindOfTool(oval, "household")).not.toHaveProperty("ratio");
  });

  it("is described by steps, a taper or nothing", () => {
    const of = (shape: string) => TOOL_KINDS.filter((kind) => shapeOf(kind) === shape);
    expect(of("taper")).toEqual(["tapered mandrel", "cone pliers"]);
    expect(of("none")).toEqual(["flat pliers"]);
    expect(of("steps")).toHaveLength(5);
  });
});

it("a bench that changes its unit keeps tapers and punches", () => {
  const shop = {
    unit: "mm",
    pins: [{ name: "cone", kind: "cone pliers", tip: "1.2", base: "5.5", length: "28" }],
    outfit: { torch: true, punches: ["6", "1/4 in"] },
  } as unknown as ShopTyped;
  expect(inUnit(shop, "in")).toMatchObject({
    pins: [{ tip: 1.2, base: 5.5, length: 28 }],
    outfit: { torch: true, punches: [6, "1/4 in"] },
  });
});
