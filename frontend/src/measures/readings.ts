import type { Reading } from "../api/client";
import { asText } from "../piece/draft";

/** So many readings are asked for at a site. */
export const SLOTS = [0, 1, 2];

/** How a reading was taken: what all readings of a site mostly share. */
export type Manner = Omit<Reading, "value" | "taken">;

/** The readings of a site after a value was typed into a slot: all else of each stays. */
export function withReading(
  readings: readonly Reading[],
  index: number,
  value: string,
  manner: Manner,
  now: string,
): Reading[] {
  const slots = SLOTS.map((i) => readings[i] ?? { ...manner, value: "" });
  const changed = slots.map((slot, i) => (i === index ? { ...slot, value, taken: now } : slot));
  const last = changed.findLastIndex((one) => asText(one.value) !== "");
  return changed.slice(0, last + 1);
}

/** The readings of a site, all taken in another manner. */
export function withManner(readings: readonly Reading[], manner: Partial<Manner>): Reading[] {
  const slots: readonly Reading[] = readings.length > 0 ? readings : [{ value: "" }];
  return slots.map((one) => ({ ...one, ...manner }));
}

/** How the next reading of a site is taken: as the first, else as this kind of site mostly is. */
export function mannerOf(readings: readonly Reading[], kind: string | undefined): Manner {
  const first = readings[0];
  if (!first) return { method: kind === "breadth" ? "calliper" : "tape" };
  const beside = Object.entries(first).filter(([key]) => key !== "value" && key !== "taken");
  return Object.fromEntries(beside);
}

/** What stands in one field for all readings of a site. */
export function inOneField(readings: readonly Reading[]): string {
  return readings.map((one) => asText(one.value)).join(" / ");
}

/**
 * The readings of a site after the one field of all of them was typed in: a reading whose figure
 * stands is sent back as it is; one that was changed keeps how it was taken.
 */
export function fromOneField(
  text: string,
  before: readonly Reading[],
  kind: string | undefined,
  now: string,
): Reading[] {
  const values = text.split(/\s\/\s|;/).map((value) => value.trim());
  return values.map((value, i) => {
    const kept = before[i];
    if (kept && asText(kept.value) === value) return kept;
    return { ...(kept ?? mannerOf(before, kind)), value, taken: now };
  });
}

/** Whether two lists of readings are the same in all that a reading has. */
export function sameReadings(
  one: readonly Reading[] | undefined,
  other: readonly Reading[] | undefined,
): boolean {
  return told(one) === told(other);
}

function told(readings: readonly Reading[] | undefined): string {
  const used = (readings ?? []).filter((reading) => asText(reading.value).trim() !== "");
  return JSON.stringify(
    used.map((reading) =>
      Object.entries({ method: "tape", ...reading })
        // The hour is written to the minute by the one and to the second by the other.
        .map(([key, value]) => [key, key === "taken" ? minute(value) : asText(value).trim()])
        .filter(([, value]) => value !== "")
        .sort(([a = ""], [b = ""]) => (a < b ? -1 : 1)),
    ),
  );
}

function minute(taken: unknown): string {
  const at = Date.parse(asText(taken));
  return Number.isNaN(at) ? asText(taken) : String(Math.floor(at / 60_000));
}
