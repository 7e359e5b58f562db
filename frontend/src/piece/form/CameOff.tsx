import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import { queries } from "../../api/queries";
import { useUnit } from "../../shared/useUnit";
import { typedLength } from "../../shared/length";
import { Trial } from "../../stock/Trial";
import { Select } from "../../shared/Select";

/** What the body came off its former at, noted with the reel that it was cut from. */
export function CameOff({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const client = useQueryClient();
  const { data: rack } = useQuery(queries.rack());
  const [chosen, choose] = useState<number | null>(null);
  const key = plan.cuts[0]?.stock;
  const reels = (rack?.stock ?? []).filter((one) => one.key === key);
  const reel = reels.find((one) => one.id === chosen) ?? reels[0];
  const former = plan.formers[0]?.tool_mm;
  if (!reel || former == null) return null;
  return (
    <section>
      <h2 className="mb-1 text-lead">{t("form.came_off")}</h2>
      {reels.length > 1 && (
        <Select
          label={t("form.from_reel")}
          className="mb-2"
          value={String(reel.id)}
          options={reels.map((one) => ({ value: String(one.id), label: one.name }))}
          onChoose={(id) => choose(Number(id))}
        />
      )}
      <Trial
        key={`${reel.id} ${former}`}
        stock={reel}
        former={typedLength(former, unit)}
        onTake={() => client.invalidateQueries()}
      />
    </section>
  );
}
