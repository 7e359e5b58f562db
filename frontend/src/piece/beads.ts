/** A list of beads where one bead stood, and sections of such lists: pure functions as typed. */

export type Bead = Record<string, unknown>;
export interface Section {
  row?: Bead[];
  times?: unknown;
}

/** The choices of a part that say its one bead, and are the list's once it has one. */
const SINGLE = ["bead", "bead_length", "hole", "stuff", "colour"] as const;
export const OF_ONE_BEAD: readonly string[] = [...SINGLE, "beads"];

/** The list that a part's one bead begins: as many of it as the part has. */
export function listFrom(part: Record<string, unknown>, usual: Record<string, unknown>): Bead[] {
  const whole = { ...usual, ...part };
  const one = Object.fromEntries(
    SINGLE.filter((name) => whole[name] != null && whole[name] !== "").map((name) => [
      name,
      whole[name],
    ]),
  );
  const count = Number(whole.beads ?? 1);
  return [count > 1 ? { ...one, times: count } : one];
}

/** One more behind the last: alike, once. */
export function oneMore(beads: readonly Bead[]): Bead[] {
  const last = beads.at(-1) ?? {};
  return [...beads, Object.fromEntries(Object.entries(last).filter(([name]) => name !== "times"))];
}

/** A bead a place further up or down; at an end it stays. */
export function shifted<T>(list: readonly T[], at: number, by: number): T[] {
  const to = at + by;
  const [one, other] = [list[at], list[to]];
  if (one === undefined || other === undefined) return [...list];
  return list.map((each, i) => (i === at ? other : i === to ? one : each));
}

/** How many beads a list has; what is no number counts once. */
export function countOf(beads: readonly Bead[]): number {
  return beads.reduce((sum, one) => sum + (Number(one.times ?? 1) || 1), 0);
}

/** The choices of a part that are still asked while it has a list. */
export function stillAsked<T extends { name: string }>(
  choices: readonly T[],
  listed: boolean,
): T[] {
  return listed ? choices.filter((one) => !OF_ONE_BEAD.includes(one.name)) : [...choices];
}
