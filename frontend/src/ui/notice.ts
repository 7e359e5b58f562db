/** The last thing that went wrong and that nothing on the page has said by itself. */
let says = "";
const listeners = new Set<() => void>();

export const notice = {
  subscribe(listener: () => void): () => void {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  snapshot: (): string => says,
  say(what: string): void {
    says = what;
    listeners.forEach((listener) => listener());
  },
};
