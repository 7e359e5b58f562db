import { useMutation } from "@tanstack/react-query";
import { api, ask } from "../api/client";
import type { StationProps } from "./context";

interface Tick {
  kind: "cut" | "step";
  key: string;
  ticked: boolean;
  actual?: string;
  /** A length far from the planned one was asked about, and is so. */
  sure?: boolean;
}

/** Ticks a cut or a step off, or takes the tick back. */
export function useTick({ piece, take }: StationProps) {
  const path = { params: { path: { piece_id: piece.id } } };
  return useMutation({
    meta: { shown: true },
    mutationFn: (tick: Tick) =>
      ask(api.POST("/api/pieces/{piece_id}/ticks", { ...path, body: { actual: "", ...tick } })),
    onSuccess: take,
    onError: () =>
      // Another tab may have been first: show what stands there. Where that can't be had either, the
      // tick's own error says all.
      ask(api.GET("/api/pieces/{piece_id}", path)).then(take, () => undefined),
  });
}
