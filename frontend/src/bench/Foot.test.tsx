// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import type { StepAtBench } from "../api/client";
import { screen, show } from "../tests/shown";
import { Foot } from "./Foot";

type Props = Parameters<typeof Foot>[0];

const step = (some: object = {}) =>
  ({ done: false, cuts: [], step: { id: "a" }, ...some }) as unknown as StepAtBench;

function foot(some: Partial<Props> = {}) {
  const acts = { onOn: vi.fn(), onBack: vi.fn(), onAll: vi.fn(), onNotDone: vi.fn() };
  const props = { step: step(), next: { kind: "done" }, held: false, hidden: false, busy: false };
  const shown = show(<Foot {...acts} {...(props as Props)} {...some} />);
  return { ...acts, ...shown };
}
const buttons = () => screen.queryAllByRole("button").map((one) => one.textContent);

it("offers to go back and on", async () => {
  const { user, onOn, onBack } = foot();
  const [back, on] = screen.getAllByRole("button");
  await user.click(on!);
  await user.click(back!);
  expect(onOn).toHaveBeenCalledOnce();
  expect(onBack).toHaveBeenCalledOnce();
});

it("offers all at once only where a step is repeated and cuts nothing", () => {
  foot({ step: step({ step: { id: "a", times: 6 } }) });
  expect(buttons()).toHaveLength(3);
});

it("takes wires one by one: all at once would say that lengths are as planned", () => {
  foot({ step: step({ cuts: [{ key: "a#1" }, { key: "a#2" }] }) });
  expect(buttons()).toHaveLength(2);
});

it("takes a done step back where it is only looked at", async () => {
  const { user, onNotDone } = foot({
    step: step({ done: true }),
    next: { kind: "look" } as Props["next"],
  });
  await user.click(screen.getAllByRole("button")[1]!);
  expect(onNotDone).toHaveBeenCalledOnce();
});

it("goes nowhere while something is sent, or where there is nowhere to go", () => {
  foot({ busy: true });
  expect(screen.getAllByRole("button").at(-1)).toHaveProperty("disabled", true);
});

it("is away while something is asked over it", () => {
  foot({ hidden: true });
  expect(buttons()).toEqual([]);
});
