import type { HandRecord, Technique } from "../api/client";

/** The kinds of what is on record, in the order in which they are shown. */
export const KINDS = ["wire", "former", "length", "pace"] as const;
export type Kind = (typeof KINDS)[number];

/** From where to where a line of ratios is drawn: all that is on it, and 1, with some room. */
export function rangeOf(technique: Technique): [number, number] {
  const values = technique.records.map((one) => one.ratio);
  if (technique.kind === "former") return widened(values);
  return widened([1, technique.low, technique.high, ...values]);
}

function widened(values: readonly number[]): [number, number] {
  const low = Math.min(...values);
  const high = Math.max(...values);
  const room = Math.max((high - low) * 0.08, Math.abs(high) * 0.01);
  return [low - room, high + room];
}

/** A place on a line so many pixels long. */
export function placeOn([low, high]: readonly [number, number], long: number) {
  return (value: number) => ((value - low) / (high - low)) * long;
}

/** The figures that stand under a line: round ones, a few. */
export function ticksOf([low, high]: readonly [number, number], most = 5): number[] {
  const rough = (high - low) / most;
  const ten = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((one) => one * ten).find((one) => one >= rough) ?? ten;
  const first = Math.ceil(low / step - 1e-9);
  const last = Math.floor(high / step + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) =>
    Number(((first + i) * step).toFixed(6)),
  );
}

/** A ratio as it is said: 4 % more, 2 % less, as planned. */
export function percent(ratio: number): string {
  const off = Math.round((ratio - 1) * 1000) / 10;
  if (off === 0) return "± 0 %";
  return `${off > 0 ? "+" : "−"} ${Math.abs(off).toFixed(1)} %`;
}

/** Made less planned [mm] of every length that counts, the oldest first. */
export function offs(records: readonly HandRecord[]): { id: number; off: number }[] {
  return records
    .filter((one) => !one.aside)
    .map((one) => ({ id: one.id, off: one.took - one.planned }));
}

/** How many of them came out within so much of what was planned. */
export function within(records: readonly HandRecord[], mm: number): number {
  return offs(records).filter(({ off }) => Math.abs(off) <= mm).length;
}
