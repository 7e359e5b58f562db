import type { Unit } from "../api/client";

/** A length for the eye: whole part, and a fraction where inches have one. */
export interface Shown {
  text: string;
  fraction?: [number, number];
  spoken: string;
}

const MM_PER_INCH = 25.4;

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/** How a length is written: mm with decimals; inches to 1/16, thin things in decimals. */
export function showLength(mm: number, unit: Unit, places = 1): Shown {
  const sign = mm < 0 ? "−" : "";
  const size = Math.abs(mm);
  if (unit === "mm") {
    const text = `${sign}${size.toFixed(places)}`;
    return { text, spoken: `${text} mm` };
  }
  if (size < MM_PER_INCH / 4) {
    const text = `${sign}${(size / MM_PER_INCH).toFixed(3)}`;
    return { text, spoken: `${text} in` };
  }
  const sixteenths = Math.round((size / MM_PER_INCH) * 16);
  const whole = Math.floor(sixteenths / 16);
  const rest = sixteenths % 16;
  if (rest === 0) return { text: `${sign}${whole}`, spoken: `${sign}${whole} in` };
  const by = gcd(rest, 16);
  const fraction: [number, number] = [rest / by, 16 / by];
  const text = whole === 0 ? sign : `${sign}${whole}`;
  return { text, fraction, spoken: `${text} ${fraction[0]}/${fraction[1]} in`.trim() };
}

/** Plain text of a length, for drawings. */
export function lengthText(mm: number, unit: Unit, places = 1): string {
  const { text, fraction } = showLength(mm, unit, places);
  return fraction ? `${text} ${fraction[0]}/${fraction[1]}`.trim() : text;
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
  const text = String(typed);
  const number = Number.parseFloat(text) || 0;
  const inUnit = typeof typed === "string" && (/in|"|″/.test(text) || (inches && !/m/.test(text)));
  return inUnit ? number * MM_PER_INCH : number;
}
