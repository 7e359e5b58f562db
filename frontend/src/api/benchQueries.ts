import { infiniteQueryOptions, queryOptions } from "@tanstack/react-query";
import { api, ask } from "./client";

/** Query keys and fetchers of bench mode, hand, log and day: fetched with the first of them. */
export const benchQueries = {
  atBench: (id: number) =>
    queryOptions({
      queryKey: ["at-bench", id],
      queryFn: async () => {
        const path = { params: { path: { piece_id: id } } };
        return arrived(await ask(api.GET("/api/pieces/{piece_id}/bench", path)));
      },
      // Another tab, or another device, may have gone on.
      refetchInterval: 12_000,
      refetchOnWindowFocus: true,
    }),
  waits: () =>
    queryOptions({
      queryKey: ["waits"],
      queryFn: async () => arrived(await ask(api.GET("/api/bench/waits"))),
      refetchInterval: 30_000,
    }),
  hand: () => queryOptions({ queryKey: ["hand"], queryFn: () => ask(api.GET("/api/hand")) }),
  log: (words: string) =>
    infiniteQueryOptions({
      queryKey: ["log", words],
      queryFn: ({ pageParam }) => {
        const query = { words, ...(pageParam ? { before: pageParam } : {}) };
        return ask(api.GET("/api/log", { params: { query } }));
      },
      initialPageParam: 0,
      getNextPageParam: (page) => page.before,
      placeholderData: (before) => before,
    }),
  entry: (id: number) =>
    queryOptions({
      queryKey: ["entry", id],
      queryFn: () => ask(api.GET("/api/log/{entry_id}", { params: { path: { entry_id: id } } })),
    }),
  day: (on: string) =>
    queryOptions({
      queryKey: ["day", on],
      queryFn: async () => arrived(await ask(api.GET("/api/day", { params: { query: { on } } }))),
      refetchInterval: 60_000,
    }),
};

/** An answer with how far the server's clock was ahead of this one's when it came [ms]. */
export function arrived<T extends { now: string }>(answer: T): T & { ahead: number } {
  return { ...answer, ahead: Date.parse(answer.now) - Date.now() };
}
