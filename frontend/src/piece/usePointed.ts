import { createContext, useContext } from "react";

/** What is pointed at, on the Rule or in the ledger: ids of ledger lines. */
export interface Pointed {
  lines: readonly string[];
  point: (lines: readonly string[]) => void;
}

export const PointedContext = createContext<Pointed>({ lines: [], point: () => undefined });

export function usePointed(): Pointed {
  return useContext(PointedContext);
}
