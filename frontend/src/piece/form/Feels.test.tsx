// @vitest-environment jsdom
import { expect, it } from "vitest";

import { plan, screen, show } from "../../tests/shown";
import { Feels } from "./Feels";

const weakest = { says: "the hook", newtons: 31.1, grams: 3172, felt: "a cat" };

it("says what gives first, and how much harder shaping may have made it", () => {
  show(<Feels plan={plan({ feels: [], weakest: { ...weakest, up_to_newtons: 58.04 } })} />);
  expect(screen.getByText(/pulled as if a cat hung on it/).textContent).toContain("31.1\u00a0N");
  expect(screen.getByText(/hardens it to 58.0.N at most/)).toBeTruthy();
});

it("says nothing of hardening where nothing was made soft", () => {
  show(<Feels plan={plan({ feels: [], weakest })} />);
  expect(screen.queryByText(/hardens it/)).toBeNull();
});
