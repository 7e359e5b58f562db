import type { Unit } from "../api/client";

/** A length for the eye: whole part, and a fraction where inches have one. */
export interface Shown {
  text: string;
  fraction?: [number, number];
  spoken: string;
}

/** How inches are written where several stand in one column: one way for all of them. */
export type InchStyle = "fractions" | "decimals";

export const MM_PER_INCH = 25.4;
const FINEST = 32;
// Lengths shorter than this are written in decimals: a thirty-second is too coarse for them.
const DECIMALS_UNDER_MM = MM_PER_INCH / 4;

// A length is met half-way this near, in parts of what it is rounded to: the same on paper.
const HALF = 0.5 + 1e-6;

function nearest(inches: number, parts: number): number {
  return Math.floor(inches * parts + HALF);
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

function thin(mm: number): boolean {
  const size = Math.abs(mm);
  return size > 0 && size < DECIMALS_UNDER_MM;
}

/** How a column of lengths is written: decimals as soon as one of them is thin. */
export function inchStyle(column: readonly (number | null | undefined)[]): InchStyle {
  return column.some((mm) => mm != null && thin(mm)) ? "decimals" : "fractions";
}

/** How a length is written: mm with decimals; inches to 1/32, thin things in decimals. */
export function showLength(mm: number, unit: Unit, places = 1, style?: InchStyle): Shown {
  const sign = mm < 0 ? "−" : "";
  const size = Math.abs(mm);
  if (unit === "mm") {
    const text = `${sign}${size.toFixed(places)}`;
    return { text, spoken: `${text} mm` };
  }
  const inches = size / MM_PER_INCH;
  if ((style ?? inchStyle([mm])) === "decimals") {
    const text = `${sign}${(nearest(inches, 1000) / 1000).toFixed(3)}`;
    return { text, spoken: `${text} in` };
  }
  const parts = nearest(inches, FINEST);
  const whole = Math.floor(parts / FINEST);
  const rest = parts % FINEST;
  if (rest === 0) return { text: `${sign}${whole}`, spoken: `${sign}${whole} in` };
  const by = gcd(rest, FINEST);
  const fraction: [number, number] = [rest / by, FINEST / by];
  const text = whole === 0 ? sign : `${sign}${whole}`;
  return { text, fraction, spoken: `${joined(text, fraction)} in` };
}

/** Plain text of a length, for drawings. */
export function lengthText(mm: number, unit: Unit, places = 1, style?: InchStyle): string {
  const { text, fraction } = showLength(mm, unit, places, style);
  return fraction ? joined(text, fraction) : text;
}

function joined(text: string, [top, bottom]: [number, number]): string {
  const apart = /\d$/.test(text) ? " " : "";
  return `${text}${apart}${top}/${bottom}`;
}

/**
 * What a field of a length shows. Text stands as it was typed; a number is millimetres, and is
 * written so that it reads back the same in the unit that the field is read in.
 */
export function typedLength(value: unknown, unit: Unit, style?: InchStyle): string {
  if (value === null || value === undefined) return "";
  if (typeof value !== "number" || unit === "mm") return String(value);
  const near = lengthText(value, unit, 1, "fractions");
  const exact = Math.abs(value - readInches(near)) < 0.005;
  return exact && style !== "decimals" ? near : lengthText(value, unit, 1, "decimals");
}

/** The least and the most of a length, as short as they can be written. */
export function lengthRange(low: number, high: number, unit: Unit): string {
  if (unit === "mm") return `${low} – ${high} mm`;
  const style = inchStyle([low, high]);
  return `${lengthText(low, unit, 1, style)} – ${lengthText(high, unit, 1, style)} in`;
}

/** A length as a maker would type it with its unit, for a field that is filled in for them. */
export function typedWithUnit(mm: number, unit: Unit): string {
  return unit === "mm" ? `${mm.toFixed(1)} mm` : `${typedLength(mm, unit)} in`;
}

/** Several numbers of one field, all written one way. */
export function typedLengths(values: readonly (string | number)[], unit: Unit): string[] {
  const alone = values.map((value) => typedLength(value, unit));
  const mixed = values.some((value, i) => typeof value === "number" && alone[i]?.includes("."));
  return mixed ? values.map((value) => typedLength(value, unit, "decimals")) : alone;
}

/**
 * What a list of lengths is after it was edited as text: what was not touched stays what it was,
 * so that adding one changes no other.
 */
export function keptLengths(
  text: string,
  before: readonly (string | number)[],
  unit: Unit,
): (string | number)[] {
  const shown = typedLengths(before, unit);
  const left = before.map((value, i) => ({ value, shown: shown[i] }));
  return splitLengths(text, unit).map((token) => {
    const at = left.findIndex((one) => one.shown === token);
    return at < 0 ? token : (left.splice(at, 1)[0]?.value ?? token);
  });
}

/** The lengths in a text: commas and semicolons part them, and blanks but that before a fraction. */
function splitLengths(text: string, unit: Unit): string[] {
  const rows = text.split(/[;]|,\s+|\s{2,}|\n/);
  const words = rows.flatMap((row) =>
    unit === "mm" ? row.split(/\s+(?!mm|cm|in\b)/) : row.split(/\s+(?!\d+\/\d|in\b|mm\b|")/),
  );
  return words.map((word) => word.trim()).filter(Boolean);
}

/** A bare number as typed, in mm; text with a unit, or that is no number, stays as it is. */
export function asMm(value: unknown, from: Unit): unknown {
  if (typeof value !== "string") return value;
  const text = value.trim().replace(",", ".");
  if (from === "mm") return /^[\d.]+$/.test(text) ? Number(text) : value;
  return /^(\d+[ -])?\d+\/\d+$|^[\d.]+$/.test(text) ? readInches(text.replace("-", " ")) : value;
}

/** A length in inches as this module writes it, in mm. */
function readInches(text: string): number {
  return text
    .split(" ")
    .map((word) => word.split("/").map(Number))
    .reduce((sum, [top = 0, bottom = 1]) => sum + (top / bottom) * MM_PER_INCH, 0);
}

/** The least room that a label and a tick want, in px. */
const LABEL_PX = 30;
const TICK_PX = 3.2;

/**
 * Ticks of a ruler up to a length at some scale (px a mm): places in mm, how tall (0 to 2), and a
 * label on the tallest. Where it gets crowded, small ticks and every other label are left out.
 */
export function rulerTicks(length: number, unit: Unit, scale: number) {
  const step = unit === "mm" ? 1 : MM_PER_INCH / 16;
  const [tall, middle] = unit === "mm" ? [10, 5] : [16, 8];
  const count = Math.floor(length / step + 1e-6);
  const every = [1, 2, 5, 10, 20, 50].find((n) => n * tall * step * scale >= LABEL_PX) ?? 100;
  const least = step * scale >= TICK_PX ? 0 : middle * step * scale >= TICK_PX ? 1 : 2;
  return Array.from({ length: count + 1 }, (_, i) => ({
    at: i * step,
    rank: i % tall === 0 ? 2 : i % middle === 0 ? 1 : 0,
    label: i % (tall * every) === 0 ? String(unit === "mm" ? i : i / 16) : undefined,
  })).filter((tick) => tick.rank >= least);
}

/** About how many mm a typed length is: only for where a slider's thumb stands. */
export function roughMm(typed: unknown, inches: boolean): number {
  if (typeof typed === "number") return typed;
  const text = String(typed);
  const number = Number.parseFloat(text) || 0;
  const inUnit = /in|"|″/.test(text) || (inches && !/m/.test(text));
  return inUnit ? number * MM_PER_INCH : number;
}
