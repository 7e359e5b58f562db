import { queryOptions } from "@tanstack/react-query";
import { api, ask } from "./client";

/** The query keys and fetchers of the first screens; those of the bench, hand, log and day are beside. */
export const queries = {
  session: () =>
    queryOptions({ queryKey: ["session"], queryFn: () => ask(api.GET("/api/session")) }),
  bench: () =>
    queryOptions({
      queryKey: ["bench"],
      queryFn: () => ask(api.GET("/api/bench")),
    }),
  piece: (id: number) =>
    queryOptions({
      queryKey: ["piece", id],
      queryFn: () => ask(api.GET("/api/pieces/{piece_id}", { params: { path: { piece_id: id } } })),
      // The saver keeps it fresh; a fetch behind its back would fight with typing.
      staleTime: Infinity,
      gcTime: 0,
    }),
  tryOnAnswer: (id: number, at: string, noted: Record<string, unknown>) =>
    queryOptions({
      queryKey: ["try-on", id, at, noted],
      queryFn: () =>
        ask(
          api.POST("/api/pieces/{piece_id}/tryons/answer", {
            params: { path: { piece_id: id } },
            body: { noted: noted },
          }),
        ),
      staleTime: Infinity,
      placeholderData: (before) => before,
    }),
  proposals: (id: number, version: number) =>
    queryOptions({
      queryKey: ["proposals", id, version],
      queryFn: async () => {
        const path = { params: { path: { piece_id: id } } };
        const found = await ask(api.GET("/api/pieces/{piece_id}/proposals", path));
        return found.proposals;
      },
      staleTime: Infinity,
      placeholderData: (before) => before,
    }),
  wires: (id: number, version: number, entry: string) =>
    queryOptions({
      queryKey: ["wires", id, version, entry],
      queryFn: async () => {
        const params = { path: { piece_id: id }, query: { entry } };
        const found = await ask(api.GET("/api/pieces/{piece_id}/wires", { params }));
        return found.wires;
      },
      staleTime: Infinity,
      placeholderData: (before) => before,
    }),
  woven: (id: number, version: number, entry: string) =>
    queryOptions({
      queryKey: ["woven", id, version, entry],
      queryFn: async () => {
        const params = { path: { piece_id: id }, query: { entry } };
        const found = await ask(api.GET("/api/pieces/{piece_id}/woven", { params }));
        return found.bodies[0] ?? null;
      },
      // What is still being pulled tight is shown as laid, and asked for again.
      refetchInterval: (query) => (query.state.data?.settled === false ? 700 : false),
      staleTime: Infinity,
      placeholderData: (before) => before,
    }),
  goes: (id: number, version: number, entry: string, wire: string) =>
    queryOptions({
      queryKey: ["goes", id, version, entry, wire],
      // What is wrong stands at its field.
      meta: { shown: true },
      queryFn: () => {
        const params = { path: { piece_id: id }, query: { entry, wire } };
        return ask(api.GET("/api/pieces/{piece_id}/woven/goes", { params }));
      },
      staleTime: Infinity,
      retry: false,
    }),
  archive: () =>
    queryOptions({ queryKey: ["archive"], queryFn: () => ask(api.GET("/api/archive")) }),
  rack: () => queryOptions({ queryKey: ["rack"], queryFn: () => ask(api.GET("/api/stock")) }),
  gauges: () =>
    queryOptions({
      queryKey: ["gauges"],
      queryFn: () => ask(api.GET("/api/gauges")),
      staleTime: Infinity,
    }),
  board: (pieces: string, at = 0) =>
    queryOptions({
      queryKey: ["board", pieces, at],
      queryFn: () => ask(api.GET("/api/board", { params: { query: { pieces } } })),
      placeholderData: (before) => before,
    }),
  wearers: () =>
    queryOptions({
      queryKey: ["wearers"],
      queryFn: () => ask(api.GET("/api/wearers")),
    }),
  facts: () =>
    queryOptions({
      queryKey: ["facts"],
      queryFn: () => ask(api.GET("/api/facts")),
      staleTime: Infinity,
    }),
  shop: () => queryOptions({ queryKey: ["shop"], queryFn: () => ask(api.GET("/api/shop")) }),
};
