import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, ask, type AtBench } from "../api/client";
import { arrived } from "../api/benchQueries";
import { withCount } from "./benchMode";

/** A piece in bench mode, as it came. */
export type View = AtBench & { ahead: number };

// What was pressed is done one after the other, in the order of the presses.
const IN_TURN = { id: "at-bench" };
const CLOCK = { id: "clock" };

/** What a press does, done by the server; what comes back is shown. */
export function useActions(view: View) {
  const client = useQueryClient();
  const params = useMemo(() => ({ path: { piece_id: view.id } }), [view.id]);
  const shown = useMemo(() => ["at-bench", view.id], [view.id]);
  const [acting, counting] = [
    ["act", view.id],
    ["count", view.id],
  ];
  /** A piece as the server told it, with the presses that it has not counted yet. */
  const withPending = (told: View, but?: Counted) =>
    client
      .getMutationCache()
      .findAll({ mutationKey: counting, status: "pending" })
      .map((one) => one.state.variables as Counted)
      .filter((one) => one !== but)
      .reduce((piece, one) => withCount(piece, one.key, one.counted), told);
  const take = (fresh: AtBench, but?: Counted) => {
    // Of two answers on their way at once the one that the server made later holds.
    const known = client.getQueryData<AtBench>(shown);
    if (known && known.now > fresh.now) return;
    client.setQueryData(shown, withPending(arrived(fresh), but));
    void client.invalidateQueries({ queryKey: ["piece", view.id] });
    void client.invalidateQueries({ queryKey: ["bench"] });
    void client.invalidateQueries({ queryKey: ["waits"] });
  };
  // Another tab was first: show where it stands now.
  const again = async (but?: Counted) =>
    take(await ask(api.GET("/api/pieces/{piece_id}/bench", { params })), but);
  const act = useMutation({
    scope: IN_TURN,
    meta: { shown: true },
    mutationKey: acting,
    mutationFn: async (action: Act): Promise<AtBench | null> => {
      const { kind, key } = action;
      const at = "/api/pieces/{piece_id}/bench" as const;
      if (kind === "done") return ask(api.POST(`${at}/done`, { params, body: { key } }));
      if (kind === "undone") return ask(api.POST(`${at}/undone`, { params, body: { key } }));
      if (kind === "cut") {
        const { actual = "", stock_id = null, sure = false } = action;
        const body = { kind: "cut" as const, key, actual, stock_id, sure };
        await ask(api.POST("/api/pieces/{piece_id}/ticks", { params, body }));
      }
      if (kind === "end_wait") {
        const path = { wait_id: Number(key) };
        await ask(api.POST("/api/bench/waits/{wait_id}/end", { params: { path } }));
      }
      if (kind === "pause") await ask(api.POST("/api/bench/pause"));
      if (kind === "finish") {
        await ask(api.POST("/api/pieces/{piece_id}/finish", { params, body: { finished: true } }));
      }
      return ask(api.GET(at, { params }));
    },
    onSuccess: (fresh) => fresh && take(fresh),
    onError: () => again(),
  });
  // Shown at once, for hands that are quicker than the wire: each press counts.
  const counts = useMutation({
    scope: IN_TURN,
    mutationKey: counting,
    mutationFn: async (body: Counted) => {
      const pending = client
        .getMutationCache()
        .findAll({ mutationKey: counting, status: "pending" });
      const waiting = pending.map((one) => one.state.variables as Counted);
      // A press behind this one says more: that one is sent.
      if (waiting.findLast((one) => one.key === body.key) !== body) return null;
      return ask(api.POST("/api/pieces/{piece_id}/bench/count", { params, body }));
    },
    onSuccess: (fresh) => fresh && take(fresh),
    onError: (_error, body) => again(body),
  });
  // The clock goes on beside what is pressed, and never holds a press up; but a piece that is laid
  // down is not taken up again by a clock that was late.
  const clock = useMutation({
    scope: CLOCK,
    mutationFn: (key: string) =>
      ask(api.POST("/api/pieces/{piece_id}/bench/go", { params, body: { key } })),
    onSuccess: (fresh) => take(fresh),
  });
  const lay = useMutation({
    scope: CLOCK,
    mutationFn: () => ask(api.POST("/api/pieces/{piece_id}/bench/lay-down", { params })),
  });
  return {
    act,
    take,
    layDown: lay.mutateAsync,
    begin: clock.mutate,
    /** Whether a press is being done, and how the piece stands: as they are now, not as drawn. */
    busy: () => client.isMutating({ mutationKey: acting }) > 0,
    stands: () => withPending(client.getQueryData<View>(shown) ?? view),
    count: (step: string, counted: number) => {
      void client.cancelQueries({ queryKey: shown });
      client.setQueryData<View>(shown, (known) => known && withCount(known, step, counted));
      counts.mutate({ key: step, counted });
    },
  };
}

interface Counted {
  key: string;
  counted: number;
}

export interface Act {
  kind: "done" | "undone" | "pause" | "cut" | "end_wait" | "finish";
  key: string;
  actual?: string;
  stock_id?: number | null;
  /** A length far from the planned one was asked about, and is so. */
  sure?: boolean;
}
