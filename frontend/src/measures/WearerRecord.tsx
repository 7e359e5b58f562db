import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask } from "../api/client";
import { sameReadings } from "./readings";
import { Button } from "../shared/Button";
import { Problem } from "../shared/TextField";
import type { StationProps } from "../piece/context";

/** Whether the readings here are the wearer's own, with a way in either direction when not. */
export function WearerRecord({ piece, brief, facts, edit, take }: StationProps) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const wearer = piece.wearer;
  const kept = piece.wearer_measures;
  const sites = facts.sites.map((site) => site.id);
  const differing = sites.filter(
    (site) => !sameReadings(brief.measures?.[site]?.readings, kept[site]?.readings),
  );
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: async () => {
      if (!wearer) return;
      for (const site of differing) {
        await ask(
          api.PUT("/api/wearers/{wearer_id}/readings", {
            params: { path: { wearer_id: wearer.id } },
            body: {
              site,
              readings: brief.measures?.[site]?.readings ?? [],
              unit: brief.unit ?? null,
            },
          }),
        );
      }
      take(
        await ask(api.GET("/api/pieces/{piece_id}", { params: { path: { piece_id: piece.id } } })),
      );
      void client.invalidateQueries({ queryKey: ["wearers"] });
    },
  });
  if (!wearer) return null;
  if (differing.length === 0) {
    return <p className="text-body text-muted">{t("measure.kept", { name: wearer.name })}</p>;
  }
  const anyKept = differing.some((site) => !sameReadings(kept[site]?.readings, []));
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button onClick={() => keep.mutate()} disabled={keep.isPending}>
        {t("measure.keep_with", { name: wearer.name })}
      </Button>
      {anyKept && (
        <Button look="quiet" onClick={() => edit(["measures"], { ...brief.measures, ...kept })}>
          {t("measure.take_from")}
        </Button>
      )}
      <Problem says={keep.error?.message} />
    </div>
  );
}
