import type { Plan } from "../api/client";

type Bend = Plan["bends"][number];

/** Bends that are made at one place of a tool, on one ideal pin: one row, all their names. */
export function sameRows(bends: readonly Bend[]): { bend: Bend; labels: string[] }[] {
  const rows = new Map<string, { bend: Bend; labels: string[] }>();
  for (const bend of bends) {
    const key = [bend.pin, bend.tool, bend.tool_mm, bend.opens_to_mm.toFixed(4)].join(" ");
    const row = rows.get(key);
    if (!row) rows.set(key, { bend, labels: [bend.label] });
    else if (!row.labels.includes(bend.label)) row.labels.push(bend.label);
  }
  return [...rows.values()];
}

// Less than this no maker sees [mm].
const SEEN_MM = 0.05;

/** Whether the maker's pin takes more wire than the ideal one, or less; nothing worth saying: null. */
export function placeKey(bend: Bend): "takes_more" | "takes_less" | null {
  const more = bend.more_mm ?? 0;
  if (Math.abs(more) < SEEN_MM) return null;
  return more > 0 ? "takes_more" : "takes_less";
}
