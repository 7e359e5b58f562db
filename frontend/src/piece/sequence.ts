/** Editing a sequence as a maker does: pure functions on entries as typed. */
import { withValue } from "./draft";

export interface Entry {
  /** Its name for good: kept when it is moved, grouped or turned, new when it is doubled. */
  id?: string;
  part?: Part | null;
  group?: Entry[];
  times?: number;
  graduate_to?: unknown;
  fill?: boolean;
  evenly?: boolean;
  fillers?: number;
  made_of?: string;
  /** What of it is made already; the rest is planned by that. */
  so_far?: { count?: unknown; over?: unknown } | null;
}

export interface Part {
  kind: string;
  [choice: string]: unknown;
}

/** What is typed of a part somewhere, null where there is none. */
export function partIn(typed: unknown): Part | null {
  return isTyped(typed) && typeof typed.kind === "string" ? { ...typed, kind: typed.kind } : null;
}

/** What is typed of a list somewhere: each a row of choices. */
export function listIn<Row extends object = Entry>(typed: unknown): Row[] {
  return Array.isArray(typed) ? (typed as Row[]) : [];
}

function isTyped(typed: unknown): typed is Record<string, unknown> {
  return typeof typed === "object" && typed !== null;
}

/** A name that no entry has had: later ones sort behind earlier ones. */
export function freshName(now = Date.now(), chance = Math.random()): string {
  const tail = Math.floor(chance * 36 ** 4)
    .toString(36)
    .padStart(4, "0");
  return now.toString(36) + tail;
}

/** An entry, and all that it holds, under names of its own; nothing of it is made yet. */
export function renamed(entry: Entry, name: () => string = freshName): Entry {
  const group = entry.group?.map((one) => renamed(one, name));
  const made = entry.so_far ? { so_far: null } : {};
  return { ...entry, id: name(), ...made, ...(group ? { group } : {}) };
}

/** Where an entry stands: its index, then the index within each group that it is in. */
export type Path = readonly number[];

export function entryAt(entries: readonly Entry[], path: Path): Entry | undefined {
  const [at, ...rest] = path;
  const entry = at === undefined ? undefined : entries[at];
  return rest.length === 0 ? entry : entry && entryAt(entry.group ?? [], rest);
}

/** The entries with the list that holds `path` changed by `change`. */
function within(
  entries: readonly Entry[],
  path: Path,
  change: (list: Entry[], at: number) => Entry[],
): Entry[] {
  const [at = 0, ...rest] = path;
  if (rest.length === 0) return change([...entries], at);
  return entries.map((entry, i) =>
    i === at ? { ...entry, group: within(entry.group ?? [], rest, change) } : entry,
  );
}

export function changed(entries: readonly Entry[], path: Path, by: Partial<Entry>): Entry[] {
  return within(entries, path, (list, at) =>
    list.map((entry, i) => (i === at ? { ...entry, ...by } : entry)),
  );
}

/** Take an entry out; a group that is left empty goes with it. */
export function without(entries: readonly Entry[], path: Path): Entry[] {
  const left = within(entries, path, (list, at) => list.filter((_, i) => i !== at));
  const parent = path.slice(0, -1);
  const emptied = parent.length > 0 && (entryAt(left, parent)?.group ?? []).length === 0;
  return emptied ? without(left, parent) : left;
}

export function inserted(entries: readonly Entry[], path: Path, entry: Entry): Entry[] {
  return within(entries, path, (list, at) => [...list.slice(0, at), entry, ...list.slice(at)]);
}

export function duplicated(entries: readonly Entry[], path: Path): Entry[] {
  const entry = entryAt(entries, path);
  return entry ? inserted(entries, after(path), renamed(structuredClone(entry))) : [...entries];
}

export function after(path: Path): Path {
  return [...path.slice(0, -1), (path.at(-1) ?? 0) + 1];
}

/** Move an entry within its list; `by` may lead past the ends, where it stays. */
export function moved(entries: readonly Entry[], path: Path, by: number): [Entry[], Path] {
  const at = path.at(-1) ?? 0;
  const length =
    (path.length > 1 ? entryAt(entries, path.slice(0, -1))?.group : entries)?.length ?? 0;
  const to = Math.min(Math.max(at + by, 0), length - 1);
  const next = within(entries, path, (list, from) => {
    const [entry] = list.splice(from, 1);
    if (entry) list.splice(to, 0, entry);
    return list;
  });
  return [next, [...path.slice(0, -1), to]];
}

/** Put an entry and the one after it into a group, or take a group apart. */
export function grouped(entries: readonly Entry[], path: Path): Entry[] {
  return within(entries, path, (list, at) => {
    const pair = list.slice(at, at + 2);
    if (pair.length < 2) return list;
    const group = { id: freshName(), group: pair, times: 1 };
    return [...list.slice(0, at), group, ...list.slice(at + 2)];
  });
}

export function ungrouped(entries: readonly Entry[], path: Path): Entry[] {
  return within(entries, path, (list, at) => [
    ...list.slice(0, at),
    ...(list[at]?.group ?? []),
    ...list.slice(at + 1),
  ]);
}

/** Every entry with its path, groups before what they hold. */
export function listed(entries: readonly Entry[], under: Path = []): [Entry, Path][] {
  return entries.flatMap((entry, i) => {
    const path = [...under, i];
    return [[entry, path] as [Entry, Path], ...listed(entry.group ?? [], path)];
  });
}

/** Where the entry of a name stands; null for what is no entry. */
export function pathOf(entries: readonly Entry[], name: string): Path | null {
  return listed(entries).find(([entry]) => entry.id === name)?.[1] ?? null;
}

export function dottedOf(path: Path): string {
  return `entries.${path.join(".group.")}`;
}

export function samePath(a: Path | null, b: Path | null): boolean {
  return a !== null && b !== null && a.length === b.length && a.every((n, i) => n === b[i]);
}

/**
 * A piece with its defaults. As long as the plan counts its entries, the counts are those that the
 * plan took; a plan still on its way must not undo an entry that was just set.
 */
export function withCounts<T extends object>(
  defaults: object | undefined,
  piece: T,
  counted: readonly Edit[] | undefined,
): T {
  const whole = { ...defaults, ...piece };
  const own = piece as { counted?: boolean | null };
  const byPlan = own.counted ?? !("entries" in piece);
  return byPlan ? withEdits(whole, counted ?? []) : whole;
}

/** A piece with one of its lists of entries set: from then on the maker counts. */
export function withEntries<T extends object>(piece: T, list: string, entries: Entry[]): T {
  return { ...piece, [list]: entries, counted: false };
}

interface Edit {
  path: readonly (string | number)[];
  value: unknown;
}

/** Set values by their paths in a piece; what proposals ask for. */
export function withEdits<T>(piece: T, edits: readonly Edit[]): T {
  return edits.reduce((now, edit) => withValue(now, [...edit.path], edit.value), piece);
}
