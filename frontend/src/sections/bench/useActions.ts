import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useCallback, useMemo } from "react";
import { api, ask, type AtBench } from "../../api/client";
import { arrived } from "../../api/benchQueries";
import { withCount } from "../../logic/benchMode";

/** A piece in bench mode, as it came. */
export type View = AtBench & { ahead: number };

// What was pressed is done one after the other, in the order of the presses.
const IN_TURN = { id: "at-bench" };

/** What a press does, done by the server; what comes back is shown. */
export function useActions(view: View) {
  const client = useQueryClient();
  const params = useMemo(() => ({ path: { piece_id: view.id } }), [view.id]);
  const take = useCallback(
    (fresh: AtBench) => {
      // Of two answers on their way at once the one that the server made later holds.
      const known = client.getQueryData<AtBench>(["at-bench", view.id]);
      if (known && known.now > fresh.now) return;
      client.setQueryData(["at-bench", view.id], arrived(fresh));
      void client.invalidateQueries({ queryKey: ["piece", view.id] });
      void client.invalidateQueries({ queryKey: ["bench"] });
      void client.invalidateQueries({ queryKey: ["waits"] });
    },
    [client, view.id],
  );
  // Another tab was first: show where it stands now.
  const again = async () => take(await ask(api.GET("/api/pieces/{piece_id}/bench", { params })));
  const act = useMutation({
    scope: IN_TURN,
    meta: { shown: true },
    mutationFn: async (action: Act): Promise<AtBench | null> => {
      const { kind, key } = action;
      const at = "/api/pieces/{piece_id}/bench" as const;
      if (kind === "done") return ask(api.POST(`${at}/done`, { params, body: { key } }));
      if (kind === "undone") return ask(api.POST(`${at}/undone`, { params, body: { key } }));
      if (kind === "cut") {
        const { actual = "", stock_id = null } = action;
        const body = { kind: "cut" as const, key, actual, stock_id };
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
    onError: again,
  });
  // Counted at once, for hands that are quicker than the wire: each press counts.
  const counting = ["count", view.id];
  const counts = useMutation({
    scope: IN_TURN,
    meta: { shown: true },
    mutationKey: counting,
    mutationFn: (body: { key: string; counted: number }) =>
      ask(api.POST("/api/pieces/{piece_id}/bench/count", { params, body })),
    onMutate: ({ key, counted }) => {
      void client.cancelQueries({ queryKey: ["at-bench", view.id] });
      client.setQueryData<View>(
        ["at-bench", view.id],
        (known) => known && withCount(known, key, counted),
      );
    },
    onSuccess: (fresh) => {
      if (client.isMutating({ mutationKey: counting }) === 1) take(fresh);
    },
    onError: again,
  });
  // The clock goes on beside what is pressed, and never holds a press up.
  const clock = useMutation({
    mutationFn: (key: string) =>
      ask(api.POST("/api/pieces/{piece_id}/bench/go", { params, body: { key } })),
    onSuccess: take,
  });
  return { act, take, begin: clock.mutate, count: counts.mutate };
}

export interface Act {
  kind: "done" | "undone" | "pause" | "cut" | "end_wait" | "finish";
  key: string;
  actual?: string;
  stock_id?: number | null;
}
