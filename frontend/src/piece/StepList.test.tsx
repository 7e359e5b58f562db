// @vitest-environment jsdom
import { within } from "@testing-library/react";
import { expect, it, vi } from "vitest";

import { piece, plan, screen, server, show, station } from "../tests/shown";
import { StepList } from "./StepList";

const STEPS = [
  { id: "mark", station: "form", title: "Mark it", says: "Scratch the marks." },
  { id: "loop", station: "form", title: "Turn the loop", says: "On the pin.", of: ["a/l", "b/l"] },
  { id: "bow", station: "form", title: "Bow it", says: "Over the mandrel." },
  { id: "press", station: "fit", title: "Press the ends in", says: "With care." },
];
const done = (...keys: string[]) => keys.map((key) => ({ kind: "step", key }));

function row(title: string): HTMLElement {
  const found = screen.getByRole("heading", { name: title }).closest("li");
  if (!found) throw new Error(title);
  return found;
}

it("shows the steps of its own station, those that are done without their words", () => {
  show(
    <StepList
      station="form"
      {...station({ plan: plan({ steps: STEPS }), piece: piece({ ticks: done("mark", "a/l") }) })}
    />,
  );
  expect(screen.getAllByRole("checkbox")).toHaveLength(3);
  expect(within(row("Mark it")).queryByText("Scratch the marks.")).toBeNull();
  // Done for one of the two that it stands for is not done.
  expect(within(row("Turn the loop")).getByRole("checkbox")).toHaveProperty("ariaChecked", "false");
  expect(row("Turn the loop").className).toContain("border-ink");
  expect(row("Bow it").className).not.toContain("border-ink");
});

it("says again what has changed about a step since it was done", () => {
  const standing = { steps: [{ key: "mark", verdict: "changed", changes: ["pin 3.0, was 2.6"] }] };
  show(
    <StepList
      station="form"
      {...station({
        plan: plan({ steps: STEPS }),
        piece: piece({ ticks: done("mark"), standing }),
      })}
    />,
  );
  expect(row("Mark it").textContent).toContain("pin 3.0, was 2.6");
  expect(within(row("Mark it")).getByText("Scratch the marks.")).toBeTruthy();
});

it("sends a tick, and shows what stands where it was refused", async () => {
  const now = { id: 7, ticks: done("mark") };
  const sent = server({
    "POST /api/pieces/7/ticks": { detail: "It is ticked already." },
    "GET /api/pieces/7": now,
  });
  const take = vi.fn();
  const { user } = show(
    <StepList station="form" {...station({ plan: plan({ steps: STEPS }), take })} />,
  );
  await user.click(screen.getByRole("checkbox", { name: "Bow it" }));
  expect(sent[0]?.body).toEqual({ kind: "step", key: "bow", ticked: true, actual: "" });
  expect(await screen.findByText("It is ticked already.")).toBeTruthy();
  expect(take).toHaveBeenCalledWith(now);
});
