import { createContext, useContext, type ReactNode } from "react";
import { inchStyle, type InchStyle } from "./length";

const Style = createContext<InchStyle | undefined>(undefined);

interface Props {
  /** The lengths that stand in it [mm]. */
  of: readonly (number | null | undefined)[];
  children: ReactNode;
}

/** Figures that stand below each other: inches of a column are all fractions or all decimals. */
export function Column({ of, children }: Props) {
  return <Style.Provider value={inchStyle(of)}>{children}</Style.Provider>;
}

/** How inches are written here; undefined where a figure stands alone. */
export function useInchStyle(): InchStyle | undefined {
  return useContext(Style);
}
