import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useSyncExternalStore } from "react";
import { signedOut } from "../api/away";
import { api, ask, type Brief, type Piece } from "../api/client";
import { queries } from "../api/queries";
import { withValue } from "./draft";
import { Saver, type Transport } from "./saver";
import { shelfOf } from "./shelf";
import { tab } from "../shared/tab";

function transportOf(id: number): Transport {
  const path = { params: { path: { piece_id: id } } };
  return {
    save: (version, brief) =>
      ask(api.PUT("/api/pieces/{piece_id}/brief", { ...path, body: { version, brief } })),
    move: (version, way) =>
      ask(
        way === "undo"
          ? api.POST("/api/pieces/{piece_id}/undo", { ...path, body: { version } })
          : api.POST("/api/pieces/{piece_id}/redo", { ...path, body: { version } }),
      ),
  };
}

const nothing = () => () => undefined;

/** A piece with its brief as typed, live: every edit is saved and planned at once. */
export function usePiece(id: number) {
  const client = useQueryClient();
  const loaded = useQuery(queries.piece(id));
  const first = loaded.data !== undefined;
  const saver = useMemo(
    () =>
      loaded.data
        ? new Saver(loaded.data, transportOf(id), shelfOf(id, tab(), localStorage))
        : null,
    // Made once for each loaded piece; later answers reach it through `take`.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [id, first],
  );
  useEffect(() => saver?.resume(), [saver]);
  // Signed in again: what waited for it goes now.
  useEffect(() => signedOut.subscribe(() => signedOut.snapshot() || saver?.tryAgain()), [saver]);
  const state = useSyncExternalStore(
    saver?.subscribe ?? nothing,
    useCallback(() => saver?.snapshot() ?? null, [saver]),
  );
  const edit = useCallback(
    (path: (string | number)[], value: unknown) => {
      if (saver) saver.edit(withValue<Brief>(saver.snapshot().brief, path, value));
    },
    [saver],
  );
  const take = useCallback(
    (piece: Piece) => {
      saver?.take(piece);
      void client.invalidateQueries({ queryKey: ["bench"] });
    },
    [saver, client],
  );
  return { saver, state, edit, take, error: loaded.error };
}

export type Edit = ReturnType<typeof usePiece>["edit"];
