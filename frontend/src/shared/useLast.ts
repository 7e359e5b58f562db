import { useState } from "react";

/** A value, or while there is none the last that there was. */
export function useLast<T>(value: T | null | undefined): T | null {
  const [last, setLast] = useState<T | null>(value ?? null);
  if (value != null && value !== last) setLast(value);
  return value ?? last;
}
