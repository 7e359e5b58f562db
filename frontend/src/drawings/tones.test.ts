import { expect, it } from "vitest";

import { toneOf } from "./tones";

it.each([
  ["reed", "var(--color-reed)"],
  ["ink", "var(--color-inkbead)"],
  ["bought", "var(--color-bought)"],
  // Another metal than the body's brings its own colour.
  ["#C2A14A", "#C2A14A"],
  ["", undefined],
  ["mauve", undefined],
  [undefined, undefined],
])("a tone %j is filled with %j", (tone, colour) => {
  expect(toneOf(tone)).toBe(colour);
});
