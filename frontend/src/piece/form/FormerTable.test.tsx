// @vitest-environment jsdom
import { expect, it } from "vitest";

import { screen, show } from "../../tests/shown";
import { FormerTable } from "./FormerTable";

type Props = Parameters<typeof FormerTable>[0];

const bend = (id: string, some: object = {}) => ({
  id, label: id, pin: 3, tool: "stepped pliers", tool_mm: 3, opens_to_mm: 3.05, result_mm: 3.05,
  places: [], ...some,
}); // prettier-ignore
const rows = () => screen.getAllByRole("row").map((one) => one.textContent);

function table(some: { formers?: object[]; bends?: object[] }) {
  show(<FormerTable {...({ formers: [], bends: [], ...some } as unknown as Props)} />);
}

it("puts bends that come to one place in one row", () => {
  table({ bends: [bend("eye"), bend("loop"), bend("crook", { tool_mm: 5, pin: 5 })] });
  expect(rows()).toHaveLength(3);
  expect(rows()[1]).toContain("eye, loop");
});

it("says how much wider or tighter the nearest former leaves a body", () => {
  const former = { target_mm: 57, former_mm: 54.1, tool: "mandrel", tool_mm: 55, result_mm: 58.2 };
  table({
    formers: [
      { ...former, off_mm: 1.2 },
      { ...former, target_mm: 56, off_mm: 0.01 },
    ],
  });
  expect(rows()[1]).toContain("1.2");
  // A twentieth of a millimetre is nobody's business.
  expect(rows()[2]).not.toContain("0.0");
});

it("marks a jaw from its tip, and the tip itself by no measure", () => {
  table({ bends: [bend("a", { at_mm: 12.34 }), bend("b", { at_mm: 0.01, tool_mm: 1.2 })] });
  expect(rows()[1]).toContain("12.3");
  expect(rows()[2]).toMatch(/tip/);
  expect(rows()[2]).not.toContain("0.0");
});

it("shows a dash for what is bent on no pin and for what no tool is there", () => {
  table({ bends: [bend("fold", { pin: 0, tool: null, tool_mm: null, result_mm: null })] });
  expect(rows()[1]?.match(/–/g)).toHaveLength(2);
});
