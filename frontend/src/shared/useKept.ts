import { useState } from "react";
import { clearShelves } from "../piece/shelf";

const PREFIX = "jamreel.typed.";

function read<T>(key: string): T | null {
  const kept = sessionStorage.getItem(PREFIX + key);
  try {
    return kept ? (JSON.parse(kept) as T) : null;
  } catch {
    return null;
  }
}

/**
 * What is being typed, kept in this tab until it is saved: a reload does not lose it. `forget`
 * lets go of what was kept; what is shown stays.
 */
export function useKept<T>(key: string, first: () => T) {
  const [value, setValue] = useState<T>(() => read<T>(key) ?? first());
  const change = (next: T) => {
    setValue(next);
    sessionStorage.setItem(PREFIX + key, JSON.stringify(next));
  };
  const forget = () => sessionStorage.removeItem(PREFIX + key);
  return { value, change, forget };
}

/** Let go of everything typed in this tab, when its maker signs out. */
export function forgetTyped() {
  for (const key of Object.keys(sessionStorage))
    if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
  clearShelves(localStorage);
}
