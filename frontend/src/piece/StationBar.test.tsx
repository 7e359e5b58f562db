// @vitest-environment jsdom
import { expect, it } from "vitest";

import { piece, plan, screen, show } from "../tests/shown";
import { StationBar } from "./StationBar";

const PIECE = piece({
  stations: {
    measure: { state: "settled", says: "readings agree" },
    cut: { state: "now", says: "2 of 4 cut" },
  },
});
const PLAN = plan({
  figures: [
    { id: "inside", label: "inside, worn", value_mm: 171.25, plus_minus_mm: 1.4 },
    { id: "cut", label: "cut", value_mm: 245.53 },
  ],
  answers: { cut: "cut", measure: "inside" },
});
const answer = () => document.querySelector("p[aria-live]")?.textContent;

it("says of every station how it stands", () => {
  show(<StationBar piece={PIECE} plan={PLAN} station="cut" />);
  const links = screen.getAllByRole("link").map((one) => one.textContent);
  expect(links).toHaveLength(5);
  expect(links[0]).toContain("readings agree");
  expect(links[2]).toContain("2 of 4 cut");
});

it("gives the station's own answer, with its doubt where it has one", () => {
  show(<StationBar piece={PIECE} plan={PLAN} station="measure" />);
  expect(answer()).toBe("inside, worn± 1.4171.3mm");
});

it("says so where a measure is guessed", () => {
  const guessed = { ...PLAN, girths: [{ site: "wrist_girth", guessed: true }] } as typeof PLAN;
  show(<StationBar piece={PIECE} plan={guessed} station="cut" />);
  expect(answer()).toMatch(/^cut, .+245\.5mm$/);
});

it("gives no figure where there is none", () => {
  show(<StationBar piece={PIECE} plan={null} station="form" />);
  expect(answer()).toMatch(/–$/);
});
