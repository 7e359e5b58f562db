import type { ShopTyped } from "../api/client";

type Tool = NonNullable<ShopTyped["formers"]>[number];
type Kind = Tool["kind"];

export const TOOL_KINDS: readonly Kind[] = [
  "stepped mandrel",
  "tapered mandrel",
  "stepped pliers",
  "cone pliers",
  "flat pliers",
  "dowels",
  "drill shanks",
  "household",
];

/** What a tool is described by: diameters of its steps, a taper, or nothing at all. */
export function shapeOf(kind: Kind): "steps" | "taper" | "none" {
  if (kind === "flat pliers") return "none";
  return kind === "tapered mandrel" || kind === "cone pliers" ? "taper" : "steps";
}

/** A tool as one of another kind: it keeps its name, and of its sizes what the new kind has. */
export function asKindOfTool(tool: Tool, kind: Kind): Tool {
  const { name, diameters, tip, base, length, ratio } = tool;
  const oval = kind.endsWith("mandrel") && ratio !== undefined ? { ratio } : {};
  switch (shapeOf(kind)) {
    case "none":
      return { name, kind };
    case "taper":
      return { name, kind, tip, base, length, ...oval };
    default:
      return { name, kind, diameters: diameters ?? [], ...oval };
  }
}
