import { useEffect } from "react";

function typing(target: EventTarget | null): boolean {
  // Choices that arrow keys walk through keep them, too.
  const own = "input, textarea, select, [role=listbox] *, [role=menu] *, [role=group] button";
  return target instanceof HTMLElement && target.matches(own);
}

/**
 * Keys that work anywhere on a page. Plain keys stay with a field that is being typed in; with
 * Alt they reach the page from there too.
 */
export function useKeys(keys: Record<string, () => void>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const ctrl = event.ctrlKey || event.metaKey;
      if (typing(event.target) && !event.altKey && !ctrl) return;
      // A field's own undo belongs to the field.
      if (ctrl && typing(event.target)) return;
      const digit = /^Digit(\d)$/.exec(event.code)?.[1];
      const name = `${ctrl ? "ctrl+" : ""}${event.shiftKey ? "shift+" : ""}${digit ?? event.key.toLowerCase()}`;
      const action = keys[name];
      if (!action) return;
      event.preventDefault();
      action();
    };
    addEventListener("keydown", listen);
    return () => removeEventListener("keydown", listen);
  }, [keys]);
}
