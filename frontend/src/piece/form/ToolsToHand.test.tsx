// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { show } from "../../tests/shown";
import { ToolsToHand } from "./ToolsToHand";
import "../FormStation";

const tools = [
  { says: "flush cutters", sizes_mm: [], lacks: false },
  { says: "stepped pliers", sizes_mm: [3, 5], lacks: false },
  { says: "torch", sizes_mm: [], lacks: true },
];

it("lists each tool with all its sizes, and what the bench lacks by itself", () => {
  show(<ToolsToHand tools={tools} />);
  const listed = screen.getAllByRole("listitem").map((one) => one.textContent);
  expect(listed).toEqual(["flush cutters", "stepped pliers 3.0, 5.0mm"]);
  expect(screen.getByText("Not on your bench:").parentElement?.textContent).toContain("torch");
});

it("is not there where nothing is wanted", () => {
  show(<ToolsToHand tools={[]} />);
  expect(screen.queryByRole("heading")).toBeNull();
});
