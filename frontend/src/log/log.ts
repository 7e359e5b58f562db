import type { LogLine } from "../api/client";

/** How far a piece came out from what was planned [mm]; null where it was not measured. */
export function cameOut(one: LogLine): { made: number; off: number } | null {
  const [planned, made] =
    one.made_mm != null
      ? [one.planned_mm, one.made_mm]
      : [one.inside_planned_mm, one.inside_made_mm];
  return planned == null || made == null ? null : { made, off: made - planned };
}

/** Entries under the month that they were finished in, as they come. */
export function byMonth(entries: readonly LogLine[]): { month: string; entries: LogLine[] }[] {
  const found: { month: string; entries: LogLine[] }[] = [];
  for (const one of entries) {
    const month = one.finished_on.slice(0, 7);
    const last = found.at(-1);
    if (last?.month === month) last.entries.push(one);
    else found.push({ month, entries: [one] });
  }
  return found;
}

/** A sum in the maker's currency, to the hundredth; a dash where nothing is known. */
export function money(value: number | null | undefined, currency = ""): string {
  return value == null ? "–" : `${value.toFixed(2)} ${currency}`.trim();
}
