/** What is said at the foot of the page: what went wrong, or what was done and can be undone. */
export interface Notice {
  says: string;
  undo?: { says: string; do: () => void };
}

const NOTHING: Notice = { says: "" };
let standing = NOTHING;
const listeners = new Set<() => void>();

function set(next: Notice): void {
  standing = next;
  listeners.forEach((listener) => listener());
}

export const notice = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  snapshot: (): Notice => standing,
  say: (what: string): void => set(what ? { says: what } : NOTHING),
  /** Says what was done, with a way to undo it in place. */
  offer: (says: string, undo: NonNullable<Notice["undo"]>): void => set({ says, undo }),
};
