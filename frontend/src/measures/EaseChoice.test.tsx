// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import type { StationProps } from "../piece/context";
import { facts, plan, screen, SHOP, show, station } from "../tests/shown";
import { EaseChoice } from "./EaseChoice";

const option = (school: string, word: string | null, value_mm: number, chosen = false) => ({
  ease: { school, word, value_mm, chosen },
  inside_girth_mm: 158 + value_mm,
});
const PLAN = plan({
  ease_options: [
    option("fixed", "snug", 6),
    option("fixed", "comfortable", 13, true),
    option("proportional", "snug", 7.9),
    option("finger", null, 11),
  ],
});
const TABLE = { finger_mm: 16, percent: { snug: 5, comfortable: 8, loose: 12 } };

function asked(ease: object | undefined, problems: object[] = []) {
  const edit = vi.fn();
  const props = station({
    brief: { measures: {}, wire: {}, piece: { kind: "bangle" }, ease } as StationProps["brief"],
    plan: PLAN,
    facts: facts({ kinds: [{ kind: "bangle", worn_on: "wrist" }] as never }),
    shop: { ...SHOP, shop: { ...SHOP.shop, ease: { wrist: TABLE } } } as never,
    problems: problems as never,
    edit,
  });
  return { edit, ...show(<EaseChoice {...props} />) };
}

it("shows what each word comes to, amounts beside shares", () => {
  asked(undefined);
  const cells = screen.getAllByRole("radio").map((one) => one.textContent);
  expect(cells).toContain("+ 6.0164.0");
  expect(cells).toContain("5 %165.9");
  expect(screen.getByRole("radio", { checked: true }).textContent).toBe("+ 13.0171.0");
});

it("begins the maker's own amount at what is chosen now", async () => {
  const { edit, user } = asked({ school: "fixed", word: "comfortable" });
  await user.click(screen.getByRole("radio", { name: /own/i }));
  const amount = "13.0 mm";
  expect(edit).toHaveBeenCalledWith(["ease"], { school: "fixed", word: null, amount });
});

it("begins a copy at the girth that the piece has now, and a finger at the shop's own", async () => {
  const { edit, user } = asked({ school: "fixed", word: "comfortable" });
  const other = screen.getAllByRole("radio").slice(6);
  for (const one of other) await user.click(one);
  expect(edit).toHaveBeenCalledWith(["ease"], { school: "copy", inside_girth: "171.0 mm" });
  expect(edit).toHaveBeenCalledWith(["ease"], { school: "finger", finger: "16" });
});

it("says what is wrong with a finger at the finger", () => {
  asked({ school: "finger", finger: "x" }, [{ field: "ease.finger", says: "No length: x." }]);
  const field = screen.getByRole("textbox");
  expect(field).toHaveProperty("value", "x");
  expect(field.getAttribute("aria-invalid")).toBe("true");
});
