import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { SheetDrawing } from "../drawings/SheetDrawing";
import { bendsOf, entryOf, partSheet } from "../logic/atHand";
import { isDone } from "../logic/standing";
import { AdviceList } from "../ui/AdviceList";
import { Column } from "../ui/Column";
import { Figure } from "../ui/Figure";
import type { StationProps } from "./context";
import { HowMade } from "./HowMade";
import { StepList } from "./StepList";

type Step = Plan["steps"][number];

/** What to bend on, in which order, and what it springs to. */
export function FormStation(props: StationProps) {
  const { plan, piece } = props;
  const { t } = useTranslation();
  const [looked, look] = useState<string | null>(null);
  const done = new Set(piece.ticks.filter((one) => one.kind === "step").map((one) => one.key));
  const steps = (plan?.steps ?? []).filter((step) => step.station === "form");
  const next = steps.find((step) => !isDone(step, done)) ?? steps[0];
  const step = steps.find((one) => one.id === looked) ?? next;
  const advice = (plan?.advice ?? []).filter((one) => one.field === "tools");
  return (
    <>
      <section>
        <h2 className="mb-1 text-lg">{t("form.order")}</h2>
        <StepList station="form" onLook={look} {...props} />
        <GoneSteps {...props} />
        <div className="mt-4">
          <HowMade {...props} />
        </div>
      </section>
      <div className="space-y-4 self-start min-[760px]:sticky min-[760px]:top-4">
        {plan && <AtHand plan={plan} step={step} />}
        <AdviceList advice={advice} />
      </div>
    </>
  );
}

/** The part that the step is about, large; then the whole, with its former or as it will lie. */
function AtHand({ plan, step }: { plan: Plan; step: Step | undefined }) {
  const { t } = useTranslation();
  const whole = plan.drawings.sheets.find((one) => one.stations.includes("form"));
  const sequence = plan.drawings.sheets.find((one) => one.id === "sequence");
  const entry = entryOf(step);
  const part = partSheet(sequence, entry, t("form.bears"));
  const bends = bendsOf(plan, entry);
  return (
    <>
      {part && step && (
        <section className="rounded-sm border hairline bg-panel px-3 py-2">
          <h2 className="text-lg first-letter:uppercase">{step.title}</h2>
          <SheetDrawing sheet={part} colour={plan.colour} className="h-[230px]" />
          {bends.length > 0 && <FormerTable plan={{ ...plan, formers: [], bends }} />}
        </section>
      )}
      {whole && (
        <section>
          <h2 className="text-lg">{whole.title}</h2>
          <SheetDrawing
            sheet={whole}
            colour={plan.colour}
            className={plan.formers.length > 0 ? "h-[300px]" : part ? "h-[110px]" : "h-[190px]"}
          />
        </section>
      )}
      {plan.formers.length > 0 && <FormerTable plan={plan} />}
    </>
  );
}

/** What was made for something that the piece no longer has. */
function GoneSteps({ piece }: StationProps) {
  const { t } = useTranslation();
  const gone = (piece.standing.steps ?? []).filter((one) => one.verdict === "not_needed");
  if (gone.length === 0) return null;
  return (
    <p className="mt-3 border-l-4 border-ink pl-3 text-[15px]">
      <strong>{t("form.gone")}</strong> {gone.map((one) => one.says).join("; ")}
    </p>
  );
}

function FormerTable({ plan }: { plan: Plan }) {
  const { t } = useTranslation();
  const cell = "border-b hairline py-1.5 pr-3 text-left";
  const every = [
    ...plan.formers.flatMap((one) => [one.former_mm, one.tool_mm, one.result_mm]),
    ...plan.bends.flatMap((one) => [one.pin, one.tool_mm, one.opens_to_mm]),
  ];
  return (
    <table className="w-full text-[15px]">
      <thead className="text-sm text-muted">
        <tr>
          {["what", "ideal", "yours", "opens_to"].map((key) => (
            <th key={key} scope="col" className={`${cell} font-normal`}>
              {t(`form.${key}`)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        <Column of={every}>
          {plan.formers.map((former) => (
            <tr key={former.target_mm}>
              <th scope="row" className={`${cell} font-semibold`}>
                {t("form.body")}
              </th>
              <td className={cell}>
                <Figure mm={former.former_mm} />
              </td>
              <td className={cell}>
                {former.tool_mm ? (
                  <>
                    <Figure mm={former.tool_mm} className="font-semibold" /> {former.tool}
                  </>
                ) : (
                  "–"
                )}
              </td>
              <td className={cell}>{former.result_mm ? <Figure mm={former.result_mm} /> : "–"}</td>
            </tr>
          ))}
          {plan.bends.map((bend) => (
            <tr key={bend.id}>
              <th scope="row" className={`${cell} font-semibold`}>
                {bend.label}
              </th>
              <td className={cell}>
                <Figure mm={bend.pin} />
              </td>
              <td className={cell}>
                {bend.tool_mm ? (
                  <>
                    <Figure mm={bend.tool_mm} className="font-semibold" /> {bend.tool}
                  </>
                ) : (
                  "–"
                )}
              </td>
              <td className={cell}>
                <Figure mm={bend.opens_to_mm} places={2} />
              </td>
            </tr>
          ))}
        </Column>
      </tbody>
    </table>
  );
}
