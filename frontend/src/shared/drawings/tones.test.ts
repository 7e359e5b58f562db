import { describe, expect, it } from "vitest";

import { paler, toneOf } from "./tones";

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

describe("what stands back", () => {
  it("is nearer to its ground", () => {
    expect(paler("#000000", "#ffffff")).toBe("#666666");
    expect(paler("#b0643a", "#f6f9f7")).toBe("#cca086");
  });

  it("keeps a colour that is no number", () => {
    expect(paler("copper", "#ffffff")).toBe("copper");
  });
});
