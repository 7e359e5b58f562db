import type { Day } from "../api/client";

type Placed = Day["lanes"][number]["placed"][number];

export interface Span {
  from: number;
  to: number;
}

/** A stretch of a lane: steps done in one go, with what is waited for behind them. */
export interface Go extends Span {
  titles: string[];
  free: number;
}

/** What of the days is drawn: from the first step of a day to the last, nights left out. */
export function daysOf(lanes: Day["lanes"]): Span[] {
  const all = lanes.flatMap((lane) => lane.placed);
  const days = new Map<string, Span>();
  for (const one of all) {
    const from = Date.parse(one.start);
    const to = Date.parse(one.end);
    // The day as the server wrote it, in the maker's own zone.
    const day = one.start.slice(0, 10);
    const known = days.get(day);
    days.set(day, {
      from: Math.min(known?.from ?? from, from),
      to: Math.max(known?.to ?? to, to),
    });
  }
  return [...days.values()].sort((a, b) => a.from - b.from).map(wholeHours);
}

const HOUR = 3_600_000;

function wholeHours({ from, to }: Span): Span {
  return { from: Math.floor(from / HOUR) * HOUR, to: Math.ceil(to / HOUR) * HOUR };
}

/** Steps of a lane that follow each other at once, together. */
export function goesOf(placed: readonly Placed[]): Go[] {
  const found: Go[] = [];
  for (const one of placed) {
    const from = Date.parse(one.start);
    const to = Date.parse(one.end);
    const free = Date.parse(one.free);
    const title = one.parts > 1 ? `${one.title} (${one.part}/${one.parts})` : one.title;
    const last = found.at(-1);
    if (last && last.to === from && last.free === last.to) {
      last.to = to;
      last.free = free;
      last.titles.push(title);
    } else {
      found.push({ from, to, free, titles: [title] });
    }
  }
  return found;
}

/** Where a moment lies on a strip of some days side by side, 0 to 1; null for one in the night. */
export function placeOf(days: readonly Span[], moment: number): number | null {
  const all = days.reduce((sum, day) => sum + day.to - day.from, 0);
  let before = 0;
  for (const day of days) {
    if (moment >= day.from && moment <= day.to) return (before + moment - day.from) / all;
    before += day.to - day.from;
  }
  return null;
}

/** The part of a span that is drawn, cut off where a night begins. */
export function drawn(days: readonly Span[], span: Span): { at: number; long: number } | null {
  for (const day of days) {
    const from = Math.max(span.from, day.from);
    const to = Math.min(span.to, day.to);
    const at = placeOf(days, from);
    const end = placeOf([day], to);
    if (from < to && at !== null && end !== null) {
      const all = days.reduce((sum, one) => sum + one.to - one.from, 0);
      return { at, long: (to - from) / all };
    }
  }
  return null;
}

/** The hour marks of the strip, each hour, or every second one where they would crowd. */
export function hoursOf(days: readonly Span[], most = 14): number[] {
  const every = days.flatMap((day) => {
    const count = Math.round((day.to - day.from) / HOUR);
    return Array.from({ length: count + 1 }, (_, i) => day.from + i * HOUR);
  });
  const step = Math.ceil(every.length / most);
  return every.filter((_, i) => i % step === 0);
}

/** A list with one of it moved before another. */
export function moved(list: readonly number[], what: number, to: number): number[] {
  const rest = list.filter((one) => one !== what);
  rest.splice(to, 0, what);
  return rest;
}

/** Minutes as they are said: 25 min, 3 h 05 min, 2 days. */
export function minutesText(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  if (whole < 48 * 60)
    return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")} min`;
  return `${Math.round(whole / 1440)} days`;
}
