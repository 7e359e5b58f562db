// @vitest-environment jsdom
import type { DragEndEvent, DragOverEvent, DragStartEvent } from "@dnd-kit/core";
import { expect, it } from "vitest";

import { show } from "../tests/shown";
import { useDragWords } from "./useDragWords";

const ROWS = [
  { id: "a", name: "bead", among: "" },
  { id: "g", name: "group", among: "" },
  { id: "b", name: "oar", among: "1" },
];

function words(): ReturnType<typeof useDragWords>["announcements"] {
  let found: ReturnType<typeof useDragWords> | undefined;
  function Reads() {
    found = useDragWords(ROWS);
    return null;
  }
  show(<Reads />);
  return found!.announcements;
}
const moving = (active: string, over?: string) =>
  ({ active: { id: active }, over: over ? { id: over } : null }) as unknown;

it("tells a row's place among those it may change places with", () => {
  const { onDragStart, onDragOver, onDragEnd } = words();
  expect(onDragStart(moving("a") as DragStartEvent)).toBe("bead lifted, place 1 of 2");
  expect(onDragStart(moving("b") as DragStartEvent)).toBe("oar lifted, place 1 of 1");
  expect(onDragOver(moving("a", "g") as DragOverEvent)).toBe("bead over place 2 of 2");
  expect(onDragEnd(moving("a", "g") as DragEndEvent)).toBe("bead put down in place 2 of 2");
});

it("says nothing of a row that is over itself or over none", () => {
  const { onDragOver } = words();
  expect(onDragOver(moving("a", "a") as DragOverEvent)).toBeUndefined();
  expect(onDragOver(moving("a") as DragOverEvent)).toBeUndefined();
});
