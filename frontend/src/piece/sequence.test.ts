import { describe, expect, it } from "vitest";

import {
  after,
  changed,
  dottedOf,
  duplicated,
  entryAt,
  freshName,
  grouped,
  inserted,
  listed,
  moved,
  pathOf,
  renamed,
  samePath,
  ungrouped,
  withCounts,
  withEdits,
  withEntries,
  without,
  type Entry,
  type Path,
} from "./sequence";

const bead = (id: string, times = 1): Entry => ({ id, part: { kind: "bead" }, times });
const row = (): Entry[] => [bead("a", 2), { id: "g", group: [bead("b"), bead("c")] }, bead("d")];
const names = (entries: readonly Entry[]) => listed(entries).map(([entry]) => entry.id);

describe("names of entries", () => {
  it("are short, lower case, and sort by when they were given", () => {
    const early = freshName(1_700_000_000_000, 0.999);
    const late = freshName(1_700_000_000_001, 0);
    expect(early).toMatch(/^[a-z0-9]{1,16}$/);
    expect([late, early].sort()).toEqual([early, late]);
    expect(freshName(5, 0.1)).not.toBe(freshName(5, 0.2));
  });

  it("are new for a doubled entry and for all that it holds", () => {
    let n = 0;
    const twin = renamed(row()[1] as Entry, () => `n${(n += 1)}`);
    expect(names([twin])).toEqual(["n3", "n1", "n2"]);
    const doubled = duplicated(row(), [1]);
    const all = names(doubled);
    expect(new Set(all).size).toBe(all.length);
    expect(all.slice(0, 4)).toEqual(["a", "g", "b", "c"]);
    expect(doubled[2]?.group).toHaveLength(2);
  });

  it("has nothing made yet of what is doubled", () => {
    const begun: Entry = { id: "a", part: { kind: "ladder" }, so_far: { count: 10, over: 44 } };
    expect(renamed(begun).so_far).toBeNull();
    expect(renamed({ id: "a", part: { kind: "ladder" } })).not.toHaveProperty("so_far");
  });

  it("stay when an entry is moved, grouped, taken out of a group or changed", () => {
    expect(names(moved(row(), [0], 2)[0])).toEqual(["g", "b", "c", "d", "a"]);
    expect(names(ungrouped(row(), [1]))).toEqual(["a", "b", "c", "d"]);
    expect(names(changed(row(), [1, 0], { times: 7 }))).toEqual(names(row()));
    const together = grouped(row(), [0]);
    expect(together[0]?.group?.map((one) => one.id)).toEqual(["a", "g"]);
    expect(names(row())).not.toContain(together[0]?.id);
  });

  it("hold through any run of edits: none is lost, none stands twice", () => {
    // A small generator of its own, so that a failure comes again.
    let seed = 7;
    const pick = (n: number) => {
      seed = (seed * 48271) % 2147483647;
      return seed % n;
    };
    let fresh = 0;
    let entries = row();
    for (let turn = 0; turn < 400; turn += 1) {
      const before = names(entries);
      const all = listed(entries);
      const [entry, path] = all[pick(all.length)] as [Entry, Path];
      const own = listed([entry]).map(([one]) => one.id);
      const next = [
        () => moved(entries, path, pick(5) - 2)[0],
        () => inserted(entries, path, bead(`new${(fresh += 1)}`)),
        () => (own.length < all.length - 2 ? without(entries, path) : entries),
        () => (all.length < 40 ? duplicated(entries, path) : entries),
        () => grouped(entries, path),
        () => ungrouped(entries, path),
        () => changed(entries, path, { times: pick(9) }),
      ][pick(7)]?.() as Entry[];
      const now = names(next);
      expect(new Set(now).size).toBe(now.length);
      const gone = before.filter((name) => !now.includes(name));
      // Only what was chosen, what it held, or a group left empty may go.
      const groups = all.filter(([one]) => one.group).map(([one]) => one.id);
      expect(gone.filter((name) => !own.includes(name) && !groups.includes(name))).toEqual([]);
      entries = next;
    }
    expect(entries.length).toBeGreaterThan(0);
  });
});

describe("places in a sequence", () => {
  it("are found by path and by name", () => {
    expect(entryAt(row(), [1, 1])?.id).toBe("c");
    expect(entryAt(row(), [1, 5])).toBeUndefined();
    expect(entryAt(row(), [])).toBeUndefined();
    expect(pathOf(row(), "c")).toEqual([1, 1]);
    expect(pathOf(row(), "closure")).toBeNull();
    expect(dottedOf([1, 0])).toBe("entries.1.group.0");
    expect(after([1, 0])).toEqual([1, 1]);
  });

  it("are the same only index by index", () => {
    expect(samePath([1, 0], [1, 0])).toBe(true);
    expect(samePath([1], [1, 0])).toBe(false);
    expect(samePath(null, null)).toBe(false);
  });

  it("stay within the list when moved past its ends", () => {
    expect(moved(row(), [0], -3)[1]).toEqual([0]);
    expect(moved(row(), [0], 9)[1]).toEqual([2]);
    const [inner, path] = moved(row(), [1, 0], 1);
    expect(path).toEqual([1, 1]);
    expect(inner[1]?.group?.map((one) => one.id)).toEqual(["c", "b"]);
  });
});

describe("editing", () => {
  it("takes a group away with the last that it holds", () => {
    const one = without(row(), [1, 0]);
    expect(one[1]?.group?.map((entry) => entry.id)).toEqual(["c"]);
    expect(without(one, [1, 0]).map((entry) => entry.id)).toEqual(["a", "d"]);
  });

  it("leaves the last entry as it is when there is none to group it with", () => {
    expect(grouped(row(), [2])).toEqual(row());
  });

  it("never changes what it was given", () => {
    const given = row();
    const copy = structuredClone(given);
    moved(given, [0], 1);
    duplicated(given, [1]);
    grouped(given, [0]);
    without(given, [1, 0]);
    changed(given, [1, 1], { times: 4 });
    expect(given).toEqual(copy);
  });
});

describe("who counts", () => {
  const defaults = { entries: [bead("a", 1)], length: 100 };
  const counted = [{ path: ["entries", 0, "times"], value: 23 }];

  it("is the plan as long as the maker set no entry", () => {
    expect(withCounts(defaults, {} as typeof defaults, counted).entries).toEqual([bead("a", 23)]);
  });

  it("is the maker from then on, though a plan is still on its way", () => {
    const mine = withEntries({ length: 90 }, "entries", [bead("a", 5)]);
    expect(mine).toMatchObject({ counted: false, length: 90 });
    expect(withCounts(defaults, mine, counted)).toMatchObject({ entries: [bead("a", 5)] });
  });

  it("is the plan again where the piece says so", () => {
    const again = { entries: [bead("a", 5)], counted: true };
    expect(withCounts(defaults, again, counted)).toMatchObject({ entries: [bead("a", 23)] });
  });

  it("sets several values by their paths", () => {
    const piece = { entries: row(), link: { length: 5 } };
    const now = withEdits(piece, [
      { path: ["entries", 1, "group", 0, "times"], value: 4 },
      { path: ["link", "length"], value: 6 },
    ]);
    expect(entryAt(now.entries, [1, 0])?.times).toBe(4);
    expect(now.link).toEqual({ length: 6 });
    expect(entryAt(piece.entries, [1, 0])?.times).toBe(1);
  });
});
