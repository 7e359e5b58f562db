// @vitest-environment jsdom
import { expect, it } from "vitest";

import { facts, plan, screen, server, show } from "../tests/shown";
import { QuickCut } from "./QuickCut";

const FACTS = facts({
  kinds: [
    { kind: "bangle", says: "bangle", sites: ["wrist_girth"], eases: true, choices: [], presets: [], usual_wire: {} },
    { kind: "ring", says: "ring", sites: ["finger_girth"], eases: false, choices: [], presets: [], usual_wire: {} },
  ] as never,
  metals: [{ id: "copper", name: "copper" }, { id: "hemp", name: "hemp", cord: true }] as never,
}); // prettier-ignore
const PLAN = plan({
  says: "bangle",
  figures: [
    { id: "cut", label: "cut", value_mm: 245.53 },
    { id: "worn", label: "inside, worn", value_mm: 171.25 },
    { id: "secret", label: "not shown here", value_mm: 1 },
  ],
  answers: { cut: "cut" },
});

function quick(answers: Record<string, unknown> = {}) {
  const sent = server({ "POST /api/plan": { plan: PLAN, problems: [] }, ...answers });
  const shown = show(<QuickCut />, "mm", FACTS);
  return { sent, ...shown };
}

it("asks nothing of the server until every measure is typed, then gives the cut", async () => {
  const { sent, user } = quick();
  const [wrist] = await screen.findAllByRole("textbox");
  await user.type(wrist!, " ");
  expect(sent).toEqual([]);
  await user.type(wrist!, "158");
  expect(await screen.findByText("245.5", { exact: false })).toBeTruthy();
  expect(screen.queryByText("not shown here")).toBeNull();
  const brief = (sent.at(-1)?.body as { brief: Record<string, unknown> }).brief;
  expect(brief).toMatchObject({
    measures: { wrist_girth: { readings: [{ value: " 158" }] } },
    wire: { size: "14 awg", metal: "copper" },
    piece: { kind: "bangle" },
  });
});

it("is made of metal: cords are on the string's list only", async () => {
  quick();
  await screen.findAllByRole("textbox");
  expect(screen.queryByRole("option", { name: "hemp" })).toBeNull();
});

it("says what is wrong, keeps what was typed, and gives no figure", async () => {
  const says = "The wrist girth of 1580 mm is longer than 300 mm.";
  const wrong = { plan: null, problems: [{ field: "measures.wrist_girth", key: "x", says }] };
  const { user } = quick({ "POST /api/plan": wrong });
  const [wrist] = await screen.findAllByRole("textbox");
  await user.type(wrist!, "1580");
  expect(await screen.findByText(says)).toBeTruthy();
  expect(wrist).toHaveProperty("value", "1580");
  expect(screen.getByText("–")).toBeTruthy();
});
