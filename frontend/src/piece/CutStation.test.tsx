// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import { piece, plan, screen, server, show, station } from "../tests/shown";
import { CutStation } from "./CutStation";

const cut = (id: string, quantity: number, alike = id) => ({
  id, alike, quantity, label: "link wire", wire: "1 mm", wire_mm: 1, metal: "copper",
  temper: "half-hard", length_mm: 60,
  lines: [{ id: "record", value_mm: 2.5, says: "from 6 pieces" }],
  marks: [{ label: "flush cut", at_mm: 1.5 }, { label: "flush cut", at_mm: 58.5 }],
}); // prettier-ignore
const FAR = {
  detail: "30 is far from 60.",
  problems: [{ key: "cut_far", field: "actual", says: "Is it 30?" }],
};

function cutting(open: string[], answers: Record<string, unknown> = {}) {
  const sent = server(answers);
  const take = vi.fn();
  const props = station({
    plan: plan({ cuts: [cut("a/link", 3), cut("b/link", 1, "a/link")] }),
    piece: piece({ standing: { open_wires: open } }),
    take,
  });
  return { sent, take, ...show(<CutStation {...props} />) };
}

it("counts wires that are cut alike together, whomever they are for", () => {
  cutting(["a/link#2", "b/link"]);
  expect(screen.getByRole("heading", { name: /4 × link wire/ })).toBeTruthy();
  expect(screen.getByText(/2 of 4/)).toBeTruthy();
  // What the record adds stands there with its reason.
  expect(screen.getByText("from 6 pieces")).toBeTruthy();
});

it("asks again about a length that looks like a slip, and sends it as sure", async () => {
  const { sent, user } = cutting(["a/link#1"], { "POST /api/pieces/7/ticks": FAR });
  await user.type(screen.getByRole("textbox"), "30");
  await user.click(screen.getByRole("button", { name: /cut/i }));
  const tick = { kind: "cut", key: "a/link", ticked: true, actual: "30" };
  expect(sent.find((one) => one.method === "POST")?.body).toEqual(tick);
  await user.click(await screen.findByRole("button", { name: /30/ }));
  expect(sent.filter((one) => one.method === "POST").at(-1)?.body).toEqual({ ...tick, sure: true });
  // What was typed stays where it was typed as long as it isn't kept.
  expect(screen.getByRole("textbox")).toHaveProperty("value", "30");
});

it("takes the last tick back where all are cut", async () => {
  const { sent, user } = cutting([]);
  await user.click(screen.getAllByRole("button").at(-1)!);
  expect(sent.find((one) => one.method === "POST")?.body).toMatchObject({
    ticked: false,
    actual: "",
  });
});
