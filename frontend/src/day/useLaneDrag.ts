import { useRef, useState, type PointerEvent } from "react";
import { laneAt } from "./day";

/** Lanes below each other, of which one is dragged to another's place by a mouse or a finger. */
export function useLaneDrag(dropped: (from: number, to: number) => void) {
  const lanes = useRef(new Map<number, HTMLElement>());
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null);
  const under = (y: number) => {
    const sorted = [...lanes.current].sort(([a], [b]) => a - b);
    return laneAt(
      sorted.map(([, lane]) => {
        const { top, bottom } = lane.getBoundingClientRect();
        return [top, bottom] as const;
      }),
      y,
    );
  };
  return {
    from: drag?.from ?? null,
    to: drag && drag.to !== drag.from ? drag.to : null,
    lane: (n: number) => (element: HTMLElement | null) => {
      if (element) lanes.current.set(n, element);
      else lanes.current.delete(n);
    },
    grip: (n: number) => ({
      onPointerDown: (event: PointerEvent) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        setDrag({ from: n, to: n });
      },
      onPointerMove: (event: PointerEvent) => {
        if (drag) setDrag({ ...drag, to: under(event.clientY) });
      },
      onPointerUp: () => {
        if (drag && drag.to !== drag.from) dropped(drag.from, drag.to);
        setDrag(null);
      },
      onPointerCancel: () => setDrag(null),
    }),
  };
}
