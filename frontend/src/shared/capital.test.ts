import { expect, test } from "vitest";
import { capital } from "./capital";

test("a label begins with a capital, and nothing else of it changes", () => {
  expect(capital("loop pin")).toBe("Loop pin");
  expect(capital("étau, Ø")).toBe("Étau, Ø");
  expect(capital("3 of them")).toBe("3 of them");
  expect(capital("")).toBe("");
});
