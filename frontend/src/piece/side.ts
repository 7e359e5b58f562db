import type { TFunction } from "i18next";

/** Parts of the body that come in pairs, by the key of their words. */
export const SIDES: Record<string, string> = {
  wrist: "side.wrist",
  ear: "side.ear",
  arm: "side.arm",
  ankle: "side.ankle",
};

/** Which of a pair a piece is for, in words; "either" where it does not matter. */
export function sideOf(t: TFunction, part: string, side: string): string {
  const key = SIDES[part];
  return key ? t(`${key}.${side}`) : "";
}
