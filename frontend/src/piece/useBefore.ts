import { createContext, useContext } from "react";

/**
 * Whether what is drawn and figured is from before, because what is typed now gives no plan: it is
 * to be looked at, not to be worked by.
 */
export const BeforeContext = createContext(false);

export function useBefore(): boolean {
  return useContext(BeforeContext);
}
