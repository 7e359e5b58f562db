import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ask, type Way, type WireNow } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { lengthText } from "../shared/length";
import { isSettled, offAlike, unsettled } from "./standing";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem } from "../shared/TextField";
import type { StationProps } from "./context";

interface Settling {
  keys: readonly string[];
  way: Way;
  to?: string;
}

/** Settles wires that were cut, or beads that were fetched, with the plan of now, one by one. */
export function useSettle({ piece, take }: StationProps) {
  const client = useQueryClient();
  return useMutation({
    meta: { shown: true },
    mutationFn: async ({ keys, way, to = "" }: Settling) => {
      for (const key of keys)
        take(
          await ask(
            api.POST("/api/pieces/{piece_id}/settle", {
              params: { path: { piece_id: piece.id } },
              body: { key, way, to },
            }),
          ),
        );
    },
    onSettled: () => {
      for (const key of ["board", "rack"]) void client.invalidateQueries({ queryKey: [key] });
    },
  });
}

/** Every wire already cut, as the plan of now sees it; what no longer suits, with what can be done. */
export function CutAlready(props: StationProps) {
  const { piece } = props;
  const { t } = useTranslation();
  const settle = useSettle(props);
  const wires = piece.standing.wires ?? [];
  if (wires.length === 0) return null;
  const off = unsettled(piece.standing);
  const right = wires.filter(isSettled).length;
  return (
    <section aria-labelledby="cut-already" data-drawn="cut-already">
      <h2 id="cut-already" className="flex flex-wrap items-baseline gap-x-3 text-lead">
        {t("standing.title")}
        <span className="text-body font-normal text-muted">
          {t(off.length > 0 ? "standing.some_right" : "standing.all_right", { count: right })}
        </span>
      </h2>
      {off.length > 0 && (
        <ul className="border-t border-ink">
          {offAlike(off).map((alike) => (
            <WireRow
              key={alike[0]?.key}
              alike={alike}
              busy={settle.isPending}
              onSettle={(keys, way, to) => settle.mutate({ keys, way, to })}
            />
          ))}
        </ul>
      )}
      <Problem says={settle.error?.message} />
    </section>
  );
}

interface RowProps {
  alike: readonly WireNow[];
  busy: boolean;
  onSettle: (keys: readonly string[], way: Way, to?: string) => void;
}

/** Wires that are off alike; another need is served by one of them at a time. */
function WireRow({ alike, busy, onSettle }: RowProps) {
  const { t } = useTranslation();
  const unit = useUnit();
  const wire = alike[0];
  if (!wire) return null;
  const keys = alike.map((one) => one.key);
  const count = keys.length;
  const by = `${lengthText(wire.by_mm, unit)} ${unit}`;
  const kept = wire.verdict === "long" || wire.verdict === "short";
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b hairline py-2">
      <span className="w-36 leading-tight font-semibold first-letter:uppercase">
        {count > 1 && <span className="figures">{count} × </span>}
        {wire.says}
      </span>
      <Figure mm={wire.actual_mm} unit className="text-title font-semibold" />
      <span className="mr-auto leading-tight">
        {t(`standing.verdict.${wire.verdict}`, { by })}
        {wire.wanted_mm != null && (
          <span className="block text-small text-muted">
            {t("standing.wanted")} <Figure mm={wire.wanted_mm} unit />
          </span>
        )}
      </span>
      <span className="flex flex-wrap gap-1.5">
        {wire.verdict === "long" && (
          <Button look="strong" disabled={busy} onClick={() => onSettle(keys, "trim")}>
            {t("standing.trimmed", { count })}
          </Button>
        )}
        {(wire.serves ?? []).map((fits) => (
          <Button
            key={fits.key}
            disabled={busy}
            onClick={() => onSettle([wire.key], "serve", fits.key)}
          >
            {t("standing.serve", {
              what: fits.says,
              spare: `${lengthText(fits.spare_mm, unit)} ${unit}`,
            })}
          </Button>
        ))}
        {wire.verdict !== "long" && (
          <Button disabled={busy} onClick={() => onSettle(keys, "offcut")}>
            {t("standing.offcut", { count })}
          </Button>
        )}
        {kept && (
          <Button look="quiet" disabled={busy} onClick={() => onSettle(keys, "keep")}>
            {t("standing.keep", { count })}
          </Button>
        )}
      </span>
    </li>
  );
}
