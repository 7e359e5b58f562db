import type { Day } from "../api/client";

type Placed = Day["lanes"][number]["placed"][number];

export interface Span {
  from: number;
  to: number;
}

/** A stretch of a lane: steps done in one go, with what is waited for behind them. */
export interface Go extends Span {
  /** When it begins, as the server wrote it. */
  at: string;
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
      found.push({ from, to, free, at: one.start, titles: [title] });
    }
  }
  return found;
}

/** Everything that is done in the days, in the order in which it is. */
export function orderOf(lanes: Day["lanes"]) {
  const all = lanes.flatMap((lane) =>
    goesOf(lane.placed).map((go) => ({ ...go, piece: lane.piece_id, name: lane.name })),
  );
  return all.sort((a, b) => a.from - b.from);
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

// An hour's figures are so wide [px].
const HOUR_PX = 42;

/** Where the figures of each hour begin, kept on the strip; null where they would lie over those
 * before them. */
export function figuresAt(marks: readonly number[], width: number): (number | null)[] {
  let free = -Infinity;
  return marks.map((mark) => {
    const at = Math.min(mark + 3, width - HOUR_PX);
    if (at < free) return null;
    free = at + HOUR_PX;
    return at;
  });
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

/** Today's date where the maker is. */
export function today(): string {
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** The time of day of a moment, in the zone that the server wrote it in. */
export const clock = (moment: string) => moment.slice(11, 16);

/** The day of a moment, as it is said: Fri 27 Nov. */
export function dayName(moment: string): string {
  const date = new Date(`${moment.slice(0, 10)}T12:00:00`);
  return date.toLocaleDateString("en-GB", { weekday: "short", day: "numeric", month: "short" });
}

/** How far a moment's own zone is from the world's, as it is written behind it [ms]. */
export function offsetOf(moment: string): number {
  const found = /([+-])(\d\d):(\d\d)$/.exec(moment);
  if (!found) return 0;
  return (found[1] === "-" ? -1 : 1) * (Number(found[2]) * 60 + Number(found[3])) * 60_000;
}

/** What stands on a bar: as much of its first step as there is room for and how many more, how
 * many there are, or nothing. */
export function barText(
  titles: readonly string[],
  width: number,
  steps: (count: number) => string,
): string {
  const more = titles.length > 1 ? ` + ${titles.length - 1}` : "";
  const title = titles[0] ?? "";
  const room = Math.floor((width - 10) / LETTER);
  if (title.length + more.length <= room) return title + more;
  if (room - more.length >= LEAST_LETTERS)
    return `${title.slice(0, room - more.length - 1)}…${more}`;
  const count = steps(titles.length);
  return count.length <= room ? count : "";
}

// A letter on a bar is so wide [px]; a title of fewer letters says nothing.
const LETTER = 7.4;
const LEAST_LETTERS = 8;
