import { expect, it } from "vitest";

import { sentAs } from "./photo";

it("sends a JPEG as it is, however many dots it has", () => {
  expect(sentAs("image/jpeg", 6_000_000, 14_000, 14_000)).toBeNull();
});

it.each([
  ["image/png", 900_000, 3000, 3000, { width: 1600, height: 1600 }],
  ["image/webp", 5_000, 8000, 4000, { width: 1600, height: 800 }],
  ["image/jpeg", 9_000_000, 1200, 4800, { width: 400, height: 1600 }],
])("makes %s of %i bytes, %i by %i, smaller", (type, bytes, width, height, size) => {
  expect(sentAs(type, bytes, width, height)).toEqual(size);
});

it("leaves small pictures alone", () => {
  expect(sentAs("image/png", 200_000, 2000, 3000)).toBeNull();
  expect(sentAs("image/webp", 200_000, 800, 600)).toBeNull();
});
