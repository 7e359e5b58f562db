import { useTranslation } from "react-i18next";
import { SheetDrawing } from "../drawings/SheetDrawing";
import { lengthText } from "../logic/length";
import { useUnit } from "../hooks/useUnit";
import { AdviceList } from "../ui/AdviceList";
import type { StationProps } from "./context";
import { EaseChoice } from "./EaseChoice";
import { SiteReadings } from "./SiteReadings";
import { WearerRecord } from "./WearerRecord";

/** What the body measures, and how the piece should sit on it. */
export function MeasureStation(props: StationProps) {
  const { plan, brief, facts, piece } = props;
  const { t } = useTranslation();
  const unit = useUnit();
  const sheet = plan?.drawings.sheets.find((one) => one.stations.includes("measure"));
  const girth = plan?.girths[0];
  const sites = facts.kinds.find((kind) => kind.kind === brief.piece.kind)?.sites ?? [];
  const advice = (plan?.advice ?? []).filter(
    (one) => one.field.startsWith("measures") || one.field === "ease",
  );
  return (
    <>
      <div className="space-y-5">
        {sites.map((site) => (
          <SiteReadings key={site} site={site} {...props} />
        ))}
        {piece.wearer && <WearerRecord {...props} />}
        <EaseChoice {...props} />
      </div>
      <div className="flex min-h-[380px] flex-col">
        <h2 className="text-lg">{sheet?.title ?? t("measure.drawing")}</h2>
        {sheet && plan ? (
          <SheetDrawing
            sheet={sheet}
            colour={plan.colour}
            className="h-[360px] flex-none"
            label={girth && `${t(`site.${girth.site}`)} ${lengthText(girth.value_mm, unit)}`}
          />
        ) : (
          <p className="text-muted">{t("measure.drawing_waits")}</p>
        )}
        <AdviceList advice={advice} />
      </div>
    </>
  );
}
