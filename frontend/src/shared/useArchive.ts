import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask, type Away } from "../api/client";
import { notice } from "./notice";

type Thing = Pick<Away, "what" | "id" | "name">;

/** Puts something away, and offers to undo that in place. */
export function usePutAway(onGone: () => void) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const back = useMutation({
    mutationFn: ({ what, id }: Thing) => ask(api.POST("/api/archive/back", { body: { what, id } })),
    onSuccess: () => client.invalidateQueries(),
  });
  return useMutation({
    mutationFn: ({ what, id }: Thing) => ask(api.POST("/api/archive", { body: { what, id } })),
    onMutate: () => window.location.pathname,
    onSuccess: (_, thing, left) => {
      // Who has gone elsewhere meanwhile stays there.
      if (window.location.pathname === left) onGone();
      void client.invalidateQueries();
      notice.offer(t("archive.gone", { name: thing.name }), {
        says: t("archive.undo"),
        do: () => back.mutate(thing),
      });
    },
  });
}
