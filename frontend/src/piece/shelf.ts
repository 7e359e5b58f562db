import type { Kept, Shelf } from "./saver";

const PREFIX = "jamreel.unsaved.";
/** A tab that is there writes what it can't send again and again; one that has not for so long is
 * gone, and what it left is picked up by whoever opens the piece next. */
export const GONE_MS = 15_000;

interface OnShelf extends Kept {
  at?: number;
}

/** What is typed on a piece in one tab, kept over a reload, apart from what another tab has. */
export function shelfOf(
  piece: number,
  tab: string,
  storage: Storage,
  now: () => number = Date.now,
): Shelf {
  const mine = `${PREFIX}${piece}.${tab}`;
  const parse = (key: string): OnShelf | null => {
    try {
      return JSON.parse(storage.getItem(key) ?? "null") as OnShelf | null;
    } catch {
      return null;
    }
  };
  const left = () =>
    keysOf(storage)
      .filter((key) => key === `${PREFIX}${piece}` || key.startsWith(`${PREFIX}${piece}.`))
      .filter((key) => key !== mine && now() - (parse(key)?.at ?? 0) > GONE_MS)
      .sort((a, b) => (parse(b)?.at ?? 0) - (parse(a)?.at ?? 0));
  return {
    read: () => {
      const own = parse(mine);
      if (own) return own;
      const [newest] = left();
      if (newest === undefined) return null;
      const found = parse(newest);
      storage.removeItem(newest);
      return found;
    },
    write: (kept) => storage.setItem(mine, JSON.stringify({ ...kept, at: now() })),
    clear: () => storage.removeItem(mine),
  };
}

/** Let go of everything unsaved, in all tabs: its maker signs out. */
export function clearShelves(storage: Storage): void {
  for (const key of keysOf(storage)) if (key.startsWith(PREFIX)) storage.removeItem(key);
}

function keysOf(storage: Storage): string[] {
  return Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "");
}
