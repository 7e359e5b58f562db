import { useEffect } from "react";

/** Fields keep what is typed in them; a button that the keyboard went to keeps its own Space. */
function keeps(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.matches("input, textarea, select")) return !key.startsWith("Page");
  return target.matches(":is(button, a, summary):focus-visible") && key === " ";
}

/** The keys that a foot pedal sends: one press each, however long it is held. */
export function usePedal(keys: Record<string, () => void>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const action = keys[event.key];
      if (!action || event.ctrlKey || event.metaKey || event.altKey) return;
      if (keeps(event.target, event.key)) return;
      event.preventDefault();
      if (!event.repeat) action();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [keys]);
}
