/** Whether the server has said that nobody is signed in any more, while somebody works here. */
let away = false;
const listeners = new Set<() => void>();

export const signedOut = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  snapshot: (): boolean => away,
  say(now: boolean): void {
    if (away === now) return;
    away = now;
    listeners.forEach((listener) => listener());
  },
};
