import { useEffect, useState } from "react";

const WHILE_MS = 150;

/** A value once it has not changed for a moment: nothing is asked at every digit. */
export function useSettled<T>(value: T): T {
  const [settled, settle] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => settle(value), WHILE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}
