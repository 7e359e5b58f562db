// @vitest-environment jsdom
import { expect, it } from "vitest";

import { plan, screen, show } from "../tests/shown";
import { Ledger } from "./Ledger";

const line = (id: string, value_mm: number, more: object = {}) => ({
  id, label: id, value_mm, rule: "path.turn", reason: `why ${id}`, backing: "common practice", ...more,
}); // prettier-ignore
const LEDGER = [
  line("girth", 205),
  line("half", -2.5, { inputs: { wire: 25.4, turns: 2.5, school: "fixed" } }),
  line("inside", 202.5, { total: true, adds_to: "cut" }),
  line("cut", 240, { total: true }),
  line("ring", 4),
];

it("begins a new column after each total that is a term of nothing", () => {
  show(<Ledger plan={plan({ ledger: LEDGER })} />);
  const columns = screen.getAllByRole("list");
  expect(columns.map((one) => one.children.length)).toEqual([4, 1]);
  // Terms have signs, totals none.
  expect(columns[0]?.textContent).toContain("+ 205.00");
  expect(columns[0]?.textContent).toContain("− 2.50");
  expect(columns[0]?.textContent).not.toContain("+ 240.00");
});

it("opens a line to its rule and what that was given, lengths in the maker's unit", async () => {
  const { user } = show(<Ledger plan={plan({ ledger: LEDGER })} />, "in");
  const half = screen.getByRole("button", { name: /half/ });
  expect(half.getAttribute("aria-expanded")).toBe("false");
  await user.click(half);
  expect(half.getAttribute("aria-expanded")).toBe("true");
  const given = [...document.querySelectorAll("dd")].map((one) => one.textContent);
  expect(given).toContain("path.turn");
  expect(given).toContain("1 in");
  // What is no length is written as it is.
  expect(given).toContain("2.5");
  expect(given).toContain("fixed");
});
