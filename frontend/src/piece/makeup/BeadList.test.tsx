// @vitest-environment jsdom
import { expect, it, vi } from "vitest";

import { facts, screen, show } from "../../tests/shown";
import { BeadList } from "./BeadList";

type Props = Parameters<typeof BeadList>[0];
type Beads = Props["beads"];

const FACTS = facts({
  beads: [
    { name: "diameter", says: "diameter", type: "length", default: "4" },
    { name: "count", says: "how many", type: "whole", default: 1 },
    { name: "stuff", says: "made of", type: "option", default: "glass", options: ["glass", "jet"] },
  ] as never,
});

function listed(beads: object[], some: Partial<Props> = {}) {
  const onBeads = vi.fn();
  const props = { label: "Beads", facts: FACTS, at: "p", problems: [], unit: "mm" } as const;
  const shown = show(<BeadList {...props} {...some} beads={beads as Beads} onBeads={onBeads} />);
  return { onBeads, ...shown };
}

it("keeps one bead unless there may be none", () => {
  listed([{ diameter: "4" }]);
  expect(screen.getAllByText("×")[0]).toHaveProperty("disabled", true);
});

it("lets the last bead go where there may be none", async () => {
  const { onBeads, user } = listed([{ diameter: "4" }], { optional: true });
  await user.click(screen.getByText("×"));
  expect(onBeads).toHaveBeenCalledWith([]);
});

it("moves a bead before the one above it, the first one nowhere", async () => {
  const { onBeads, user } = listed([{ diameter: "4" }, { diameter: "6" }]);
  const [first, second] = screen.getAllByText("↑");
  expect(first).toHaveProperty("disabled", true);
  await user.click(second!);
  expect(onBeads).toHaveBeenCalledWith([{ diameter: "6" }, { diameter: "4" }]);
});

it("changes one bead and leaves the others", async () => {
  const { onBeads, user } = listed([{ diameter: "4", count: 2 }, { diameter: "6" }]);
  const [first] = screen.getAllByDisplayValue("2");
  await user.type(first!, "5");
  expect(onBeads).toHaveBeenCalledWith([{ diameter: "4", count: 25 }, { diameter: "6" }]);
});
