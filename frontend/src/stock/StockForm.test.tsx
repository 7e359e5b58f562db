// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import type { StockLine } from "../api/client";
import { facts, screen, show } from "../tests/shown";
import { StockForm } from "./StockForm";

const FACTS = facts({
  metals: [
    { id: "copper", name: "copper" },
    { id: "brass", name: "brass" },
  ] as never,
});

function form(stock?: object) {
  const onSend = vi.fn();
  const props = { stock: stock as StockLine | undefined, says: "Put on the rack", busy: false };
  const shown = show(<StockForm {...props} onSend={onSend} />, "mm", FACTS);
  return { onSend, ...shown };
}
const asked = () => screen.getAllByRole("textbox").length;

it("sends wire as its size, metal and temper", async () => {
  const { onSend, user } = form();
  await user.type(screen.getByLabelText("Size"), "18 awg");
  await user.click(screen.getByRole("button", { name: "Put on the rack" }));
  expect(onSend.mock.calls[0]?.[0]).toMatchObject({
    kind: "reel",
    wire: { size: "18 awg", metal: "copper", temper: "half_hard" },
  });
});

it("asks of beads what beads have, and sends them without a wire", async () => {
  const { onSend, user } = form();
  const before = asked();
  await user.selectOptions(screen.getAllByRole("combobox")[0]!, "bead");
  expect(screen.queryByLabelText("Temper")).toBeNull();
  expect(asked()).toBe(before);
  await user.type(screen.getByLabelText("Size"), "6 mm");
  await user.click(screen.getByRole("button", { name: "Put on the rack" }));
  const sent = onSend.mock.calls[0]?.[0] as Record<string, unknown>;
  expect(sent).toMatchObject({ kind: "bead", size: "6 mm" });
  expect(sent).not.toHaveProperty("wire");
});

it("shows what is on the rack as it was typed, in the maker's unit, and asks no amount", () => {
  form({
    id: 4,
    kind: "reel",
    name: "old",
    wire: { size: "1 mm", metal: "brass" },
    tare_g: 12.5,
    low: 500,
  });
  const values = screen.getAllByRole("textbox").map((one) => (one as HTMLInputElement).value);
  expect(values).toEqual(expect.arrayContaining(["1 mm", "12.5", "500", "old"]));
  expect(screen.queryByLabelText(/left on it|length|amount/i)).toBeNull();
});
