import { queryOptions } from "@tanstack/react-query";
import {
  api,
  ask,
  type Bench,
  type Facts,
  type Piece,
  type Proposal,
  type Session,
  type ShopView,
  type Wearer,
} from "./client";

/** All query keys and fetchers, in one place. */
export const queries = {
  session: () =>
    queryOptions({ queryKey: ["session"], queryFn: () => ask<Session>(api.GET("/api/session")) }),
  bench: () =>
    queryOptions({
      queryKey: ["bench"],
      queryFn: () => ask<Bench>(api.GET("/api/bench")),
    }),
  piece: (id: number) =>
    queryOptions({
      queryKey: ["piece", id],
      queryFn: () =>
        ask<Piece>(api.GET("/api/pieces/{piece_id}", { params: { path: { piece_id: id } } })),
      // The saver keeps it fresh; a fetch behind its back would fight with typing.
      staleTime: Infinity,
      gcTime: 0,
    }),
  proposals: (id: number, version: number) =>
    queryOptions({
      queryKey: ["proposals", id, version],
      queryFn: async () => {
        const path = { params: { path: { piece_id: id } } };
        const found = await ask<{ proposals: Proposal[] }>(
          api.GET("/api/pieces/{piece_id}/proposals", path),
        );
        return found.proposals;
      },
      staleTime: Infinity,
      placeholderData: (before) => before,
    }),
  wearers: () =>
    queryOptions({
      queryKey: ["wearers"],
      queryFn: () => ask<Wearer[]>(api.GET("/api/wearers")),
    }),
  facts: () =>
    queryOptions({
      queryKey: ["facts"],
      queryFn: () => ask<Facts>(api.GET("/api/facts")),
      staleTime: Infinity,
    }),
  shop: () =>
    queryOptions({ queryKey: ["shop"], queryFn: () => ask<ShopView>(api.GET("/api/shop")) }),
};
