import type { TFunction } from "i18next";
import { expect, it } from "vitest";

import words from "../locales/en-work.json";
import { SIDES, sideOf } from "./side";

const t = ((key: string) =>
  key
    .split(".")
    .reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], words) ??
  key) as unknown as TFunction;

it("says which of a pair, in words that exist", () => {
  for (const part of Object.keys(SIDES))
    for (const side of ["left", "right", "either"]) {
      const said = sideOf(t, part, side);
      expect(said).not.toContain(".");
      expect(said.length).toBeGreaterThan(2);
    }
});

it("says nothing of what comes once", () => {
  expect(sideOf(t, "neck", "left")).toBe("");
});
