// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import type { AtBench, StepAtBench } from "../api/client";
import { screen, server, show } from "../tests/shown";
import { SoFar } from "./SoFar";

const step = (some: object = {}) =>
  ({ done: false, step: { id: "e1/rows", way: "e1" }, ...some }) as unknown as StepAtBench;
const view = (way: object = {}) =>
  ({
    id: 7,
    version: 3,
    ways: [
      { entry: "e1", label: "rows", count: 38, done: 0, each_mm: 4, wire: "working wire", ...way },
    ],
  }) as unknown as AtBench;
const PATH = "/api/pieces/7/bench/so-far";
const found = {
  gone: {
    entry: "e1",
    label: "rows",
    done: 10,
    in_all: 35,
    planned: 38,
    each_mm: 4.4,
    planned_each_mm: 4,
    finished_mm: 170,
    off_mm: 0.4,
    says: ["Each comes out at 4.40 mm, planned were 4.00 mm."],
    edits: [],
  },
  serves: [{ label: "outer bar", length_mm: 198, count: 2 }],
  to_cut: [{ label: "working wire", length_mm: 1399, count: 3 }],
  to_buy: [],
};

it("shows how many more, the wires that serve first, and keeps only when asked", async () => {
  const sent = server({ [`POST ${PATH}`]: found, [`PUT ${PATH}`]: {} });
  const onTake = vi.fn();
  const { user } = show(<SoFar view={view()} step={step()} onTake={onTake} />);
  await user.type(screen.getByLabelText("Made: rows"), "10");
  await user.type(screen.getByLabelText("They measure, first to last"), "44");
  await user.click(screen.getByRole("button", { name: "What follows" }));
  const status = await screen.findByRole("status");
  expect(status.textContent).toContain("25");
  const text = status.textContent ?? "";
  expect(text.indexOf("outer bar")).toBeLessThan(text.indexOf("working wire"));
  expect(sent.at(-1)).toMatchObject({
    method: "POST",
    body: { entry: "e1", count: "10", over: "44" },
  });
  expect(onTake).not.toHaveBeenCalled();
  await user.click(screen.getByRole("button", { name: "Plan on from here" }));
  await vi.waitFor(() => expect(onTake).toHaveBeenCalledOnce());
  expect(sent.at(-1)).toMatchObject({ method: "PUT", body: { version: 3 } });
});

it("asks for no count that was lost, and for nothing left of wire that ran out", async () => {
  server({});
  const { user } = show(<SoFar view={view()} step={step()} onTake={vi.fn()} />);
  await user.selectOptions(screen.getByLabelText("What happened"), "lost_count");
  expect(screen.queryByLabelText("Made: rows")).toBeNull();
  await user.selectOptions(screen.getByLabelText("What happened"), "ran_out");
  expect(screen.queryByLabelText(/Left of/)).toBeNull();
});

it("is not there for what nobody counts, nor once it is done", () => {
  server({});
  show(<SoFar view={view()} step={step({ step: { id: "cut" } })} onTake={vi.fn()} />);
  show(<SoFar view={view()} step={step({ done: true })} onTake={vi.fn()} />);
  expect(screen.queryByText("How far is it?")).toBeNull();
});
