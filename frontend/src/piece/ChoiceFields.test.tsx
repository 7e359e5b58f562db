// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import { screen, show } from "../tests/shown";
import { ChoiceFields } from "./ChoiceFields";

type Props = Parameters<typeof ChoiceFields>[0];

const CHOICES = [
  { name: "pin", says: "loop pin", type: "length", default: "3.0", low: 1, high: 30, first: true },
  { name: "wraps", says: "wraps", type: "whole", default: 2, low: 0, high: 9 },
  { name: "ends", says: "ends", type: "option", default: "plain", options: ["plain", "balled"],
    labels: ["plain", "melted to a ball"], first: true },
  { name: "ball", says: "ball", type: "length", default: "2.0", low: 1, high: 5,
    if_field: "ends", if_values: ["balled"] },
  { name: "closed", says: "soldered shut", type: "flag", default: false },
] as unknown as Props["choices"]; // prettier-ignore

function asked(some: Partial<Props> = {}) {
  const onSet = vi.fn();
  const props = { value: {}, at: "piece.part", problems: [], unit: "mm", ...some } as const;
  const { user } = show(<ChoiceFields choices={CHOICES} onSet={onSet} {...props} />);
  return { onSet, user };
}

it("asks the first choices at once and says how many more there are", () => {
  asked();
  expect(screen.getByLabelText("Loop pin")).toBeTruthy();
  const more = document.querySelector("details");
  expect(more?.open).toBe(false);
  expect(more?.textContent).toContain("2");
  // It hangs on ends that are balled.
  expect(screen.queryByLabelText("Ball")).toBeNull();
});

it("asks what matters because of a choice beside that choice", () => {
  asked({ value: { ends: "balled" } });
  expect(document.querySelector("details")?.contains(screen.getByLabelText("Ball"))).toBe(false);
});

it("opens the others where one of them is wrong, and says so at its field", () => {
  const wrong = { field: "piece.part.wraps", key: "x", says: "Nine wraps at most." };
  asked({ problems: [wrong as Props["problems"][number]] });
  expect(document.querySelector("details")?.open).toBe(true);
  expect(screen.getByLabelText("Wraps").getAttribute("aria-invalid")).toBe("true");
  expect(screen.getByText("Nine wraps at most.")).toBeTruthy();
});

it("hands lengths on as typed, whole numbers as numbers, marks as they stand", async () => {
  const { onSet, user } = asked({ value: { wraps: 3 } });
  await user.type(screen.getByLabelText("Loop pin"), "4");
  await user.type(screen.getByLabelText("Wraps"), "1");
  await user.click(screen.getByLabelText("Soldered shut"));
  expect(onSet.mock.calls).toEqual([
    ["pin", "4"],
    ["wraps", 31],
    ["closed", true],
  ]);
});

it("says in which unit a bare number is read where that is not the shop's", () => {
  asked({ unit: "in" });
  expect(screen.getByLabelText("Loop pin").parentElement?.textContent).toContain("in");
});
