import { useEffect, useRef, type RefObject } from "react";

// A finger that strays no further than this has tapped, not dragged [px].
const STRAYS = 8;

/**
 * Calls back at a tap on something, not at a drag over it nor at a press of what lies in it. A tap
 * counts though the screen is drawn anew between finger down and finger up.
 */
export function useTap(ref: RefObject<HTMLElement | null>, tapped: () => void): void {
  const latest = useRef(tapped);
  useEffect(() => {
    latest.current = tapped;
  });
  useEffect(() => {
    const area = ref.current;
    if (!area) return;
    let from: [number, number] | null = null;
    const down = (event: PointerEvent) => {
      const own = event.target instanceof Element && event.target.closest("button, a, input");
      from = own ? null : [event.clientX, event.clientY];
    };
    const up = (event: PointerEvent) => {
      if (!from) return;
      const strayed = Math.hypot(event.clientX - from[0], event.clientY - from[1]);
      from = null;
      if (strayed <= STRAYS) latest.current();
    };
    area.addEventListener("pointerdown", down);
    area.addEventListener("pointerup", up);
    return () => {
      area.removeEventListener("pointerdown", down);
      area.removeEventListener("pointerup", up);
    };
  }, [ref]);
}
