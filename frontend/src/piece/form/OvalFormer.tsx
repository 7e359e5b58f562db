import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import { SheetDrawing } from "../../shared/drawings/SheetDrawing";
import { buttonLook } from "../../shared/Button";
import { Figure } from "../../shared/Figure";

interface Props {
  plan: Plan;
  pieceId: number;
}

/** The former of a piece that lies along an oval body: drawn, to print or cut, or on round tools. */
export function OvalFormer({ plan, pieceId }: Props) {
  const { t } = useTranslation();
  const sheet = plan.drawings.sheets.find((one) => one.id === "oval");
  const oval = plan.oval;
  if (!sheet || !oval) return null;
  return (
    <section className="rounded-sm border hairline bg-panel px-3 py-2">
      <h2 className="text-lead">
        {sheet.title} <Figure mm={oval.across_mm} className="font-semibold" /> ×{" "}
        <Figure mm={oval.through_mm} className="font-semibold" />
      </h2>
      <p className="text-small text-muted">{t("oval.why")}</p>
      <SheetDrawing sheet={sheet} colour={plan.colour} className="h-[300px]" />
      <div className="flex flex-wrap gap-2">
        {(["pdf", "svg", "dxf"] as const).map((form) => (
          <a
            key={form}
            className={buttonLook(form === "pdf" ? "strong" : "plain")}
            href={`/api/pieces/${pieceId}/former.${form}`}
            target={form === "pdf" ? "_blank" : undefined}
            rel="noreferrer"
          >
            {t(`oval.${form}`)}
          </a>
        ))}
      </div>
      <Rounds rounds={oval.rounds} />
    </section>
  );
}

function Rounds({ rounds }: { rounds: NonNullable<Plan["oval"]>["rounds"] }) {
  const { t } = useTranslation();
  if (!rounds) return <p className="mt-2 text-body">{t("oval.no_rounds")}</p>;
  return (
    <div className="mt-2 text-body">
      <p>
        {t("oval.rounds")} <Figure mm={rounds.off_mm} className="font-semibold" />.
      </p>
      <ol className="list-decimal pl-6">
        {rounds.places.map((place, i) => (
          <li key={i}>
            <Figure mm={place.tool_mm} className="font-semibold" /> {place.tool}
            {place.at_mm != null && (
              <>
                , {t("form.mark_at")} <Figure mm={place.at_mm} />
              </>
            )}
            {": "}
            {t(i === 0 ? "oval.from_middle" : "oval.then")} <Figure mm={place.from_mm} />
            {" – "}
            <Figure mm={place.to_mm} />
          </li>
        ))}
      </ol>
      <p className="text-small text-muted">{t("oval.mirrored")}</p>
    </div>
  );
}
