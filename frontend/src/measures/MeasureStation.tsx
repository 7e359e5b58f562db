import { useState } from "react";
import { useTranslation } from "react-i18next";
import { SheetDrawing } from "../shared/drawings/SheetDrawing";
import { SiteDrawing } from "./SiteDrawing";
import { AdviceList } from "../shared/AdviceList";
import type { StationProps } from "../piece/context";
import { EaseChoice } from "./EaseChoice";
import { sideOf, SIDES } from "../piece/side";
import { Select } from "../shared/Select";
import { SiteReadings } from "./SiteReadings";
import { WearerRecord } from "./WearerRecord";

/** What the body measures, and how the piece should sit on it. */
export function MeasureStation(props: StationProps) {
  const { plan, brief, facts, piece, edit } = props;
  const { t } = useTranslation();
  const [looked, look] = useState<string | null>(null);
  const [more, showMore] = useState(false);
  const sheet = plan?.drawings.sheets.find((one) => one.stations.includes("measure"));
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const extra = piece.helps.filter((site) => more || brief.measures?.[site]);
  const advice = (plan?.advice ?? []).filter(
    (one) => one.field.startsWith("measures") || one.field === "ease",
  );
  return (
    <>
      <div className="space-y-3">
        {[...piece.sites, ...extra].map((site) => (
          <SiteReadings key={site} site={site} onLook={() => look(site)} {...props} />
        ))}
        <div className="flex items-center justify-between gap-3">
          {piece.wearer && piece.sites.length > 0 ? <WearerRecord {...props} /> : <span />}
          {extra.length < piece.helps.length && (
            <button
              type="button"
              className="min-h-[44px] shrink-0 text-body underline underline-offset-4"
              aria-label={t("measure.more_of", {
                sites: piece.helps
                  .filter((s) => !extra.includes(s))
                  .map((s) => t(`site.${s}`))
                  .join("; "),
              })}
              onClick={() => showMore(true)}
            >
              {t("measure.more")}
            </button>
          )}
        </div>
        {kind?.eases && <EaseChoice {...props} />}
      </div>
      <div className="flex min-h-[380px] flex-col">
        <div className="flex items-start justify-between gap-3">
          <div>
            <h2 className="text-lead">{sheet?.title ?? t("measure.drawing")}</h2>
            {plan && <p className="text-body">{plan.fit_says}</p>}
          </div>
          {kind && kind.worn_on in SIDES && (
            <Select
              label={t("measure.side")}
              labelHidden
              className="w-36 shrink-0"
              value={brief.side ?? "either"}
              options={(["either", "left", "right"] as const).map((side) => ({
                value: side,
                label: sideOf(t, kind.worn_on, side),
              }))}
              onChoose={(side) => edit(["side"], side)}
            />
          )}
        </div>
        {sheet && plan ? (
          <SheetDrawing sheet={sheet} colour={plan.colour} className="h-[350px] flex-none" />
        ) : (
          <p className="text-muted">{t("measure.drawing_waits")}</p>
        )}
        {(looked || !plan) && (
          <SiteDrawing site={looked ?? piece.sites[0] ?? ""} className="my-3" />
        )}
        <AdviceList advice={advice} />
      </div>
    </>
  );
}
