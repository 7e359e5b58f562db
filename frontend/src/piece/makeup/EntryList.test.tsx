// @vitest-environment jsdom
import { useEffect, useState } from "react";
import { expect, it } from "vitest";

import { facts, screen, show } from "../../tests/shown";
import type { Entry, Path } from "../sequence";
import { EntryList } from "./EntryList";

const PARTS = facts({
  parts: [
    { kind: "bead", says: "bead on the string", strokes: [] },
    { kind: "eye_link", says: "eye link", strokes: [] },
  ] as never,
}).parts;
const bead = (id: string, times = 2): Entry => ({ id, part: { kind: "bead", bead: "4" }, times });
const START: Entry[] = [
  bead("a"),
  { id: "g", times: 3, group: [bead("b"), { id: "c", part: { kind: "eye_link", name: "oar" } }] },
];

let now: Entry[] = [];

function Kept({ mirrored = false, first = [0] }: { mirrored?: boolean; first?: Path | null }) {
  const [entries, setEntries] = useState(START);
  const [selected, select] = useState<Path | null>(first);
  useEffect(() => {
    now = entries;
  }, [entries]);
  return (
    <EntryList
      entries={entries}
      parts={PARTS}
      sheet={undefined}
      colour="#B0643A"
      unit="mm"
      mirrored={mirrored}
      selected={selected}
      onSelect={select}
      onChange={setEntries}
    />
  );
}
const names = () => screen.getAllByRole("button").filter((one) => one.hasAttribute("aria-pressed"));
const chosen = () => names().find((one) => one.getAttribute("aria-pressed") === "true");

it("names parts by their maker's name or the shelf's, and says what lies on both sides", () => {
  show(<Kept mirrored />);
  expect(names().map((one) => one.textContent)).toEqual([
    expect.stringContaining("bead on the string"),
    expect.stringContaining("group"),
    expect.stringContaining("bead on the string"),
    expect.stringContaining("oar"),
  ]);
  // Only what stands in the line itself lies on both sides; a group's own are counted within it.
  const both = names().map((one) => /on each side, \d+ in all/.test(one.textContent ?? ""));
  expect(both).toEqual([true, true, false, false]);
  expect(names()[0]?.textContent).toContain("2 on each side, 4 in all");
});

it("does by keys what its buttons do", async () => {
  const { user } = show(<Kept />);
  names()[0]!.focus();
  await user.keyboard("+");
  expect(now[0]?.times).toBe(3);
  await user.keyboard("-----");
  expect(now[0]?.times).toBe(0);
  await user.keyboard("d");
  expect(now).toHaveLength(3);
  // Doubled, with a name of its own.
  expect(now[1]?.id).not.toBe("a");
  await user.keyboard("{Delete}");
  expect(now.map((one) => one.id)).not.toContain("a");
});

it("moves and walks by the arrows, and leaves keys alone that a lifted row takes", async () => {
  const { user } = show(<Kept />);
  names()[0]!.focus();
  await user.keyboard("{ArrowDown}");
  expect(chosen()?.textContent).toContain("group");
  await user.keyboard("{Alt>}{ArrowUp}{/Alt}");
  expect(now.map((one) => one.id)).toEqual(["g", "a"]);
  document.querySelector<HTMLElement>("[data-grip]")!.focus();
  await user.keyboard("{Delete}");
  expect(now).toHaveLength(2);
});

it("takes a group apart and makes one of two neighbours", async () => {
  const { user } = show(<Kept first={[1]} />);
  names()[0]!.focus();
  await user.keyboard("g");
  expect(now.map((one) => one.id)).toEqual(["a", "b", "c"]);
});
