// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { useRef } from "react";
import { afterEach, expect, it, vi } from "vitest";
import { useTap } from "./useTap";

function Area({ tapped }: { tapped: () => void }) {
  const ref = useRef<HTMLDivElement>(null);
  useTap(ref, tapped);
  return (
    <div ref={ref} data-testid="area">
      <button type="button">inside</button>
    </div>
  );
}

afterEach(cleanup);

/** A pointer's event by its place; jsdom's own has none. */
function pointer(type: "pointerdown" | "pointerup", on: Element, x: number) {
  fireEvent(on, new MouseEvent(type, { clientX: x, clientY: 0, bubbles: true }));
}

it("counts a tap though the screen is drawn anew before the finger is lifted", () => {
  const before = vi.fn();
  const after = vi.fn();
  const { rerender } = render(<Area tapped={before} />);
  pointer("pointerdown", screen.getByTestId("area"), 10);
  rerender(<Area tapped={after} />);
  pointer("pointerup", screen.getByTestId("area"), 12);
  // What is called is what holds now.
  expect(after).toHaveBeenCalledOnce();
  expect(before).not.toHaveBeenCalled();
});

it("takes neither a drag nor a press of what lies in it for a tap", () => {
  const tapped = vi.fn();
  render(<Area tapped={tapped} />);
  pointer("pointerdown", screen.getByTestId("area"), 10);
  pointer("pointerup", screen.getByTestId("area"), 30);
  pointer("pointerdown", screen.getByText("inside"), 10);
  pointer("pointerup", screen.getByText("inside"), 10);
  expect(tapped).not.toHaveBeenCalled();
});
