import { expect, it } from "vitest";

import { ApiError } from "../api/client";
import { asksWhether } from "./slips";

function refused(key: string): ApiError {
  const problem = { field: "made.bangle", key, expected: "", got: "2460 mm", says: "Is it so?" };
  const details = { type: "", title: "", status: 422, detail: "", problems: [problem] };
  return new ApiError(422, details);
}

it("asks about lengths far from what was planned, and about nothing else", () => {
  expect(asksWhether(refused("cut_far_guess"))).toBe("Is it so?");
  expect(asksWhether(refused("cut_far"))).toBe("Is it so?");
  expect(asksWhether(refused("length"))).toBeUndefined();
  expect(asksWhether(new Error("away"))).toBeUndefined();
  expect(asksWhether(null)).toBeUndefined();
});
