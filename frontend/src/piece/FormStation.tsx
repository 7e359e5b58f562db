import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../api/client";
import { queries } from "../api/queries";
import { useBefore } from "./useBefore";
import { SheetDrawing } from "../shared/drawings/SheetDrawing";
import { WovenView } from "../shared/drawings/WovenView";
import { bendsOf, entryOf, partSheet } from "../bench/atHand";
import { isDone } from "./standing";
import { AdviceList } from "../shared/AdviceList";
import type { StationProps } from "./context";
import { CameOff } from "./form/CameOff";
import { Feels } from "./form/Feels";
import { FormerTable } from "./form/FormerTable";
import { OvalFormer } from "./form/OvalFormer";
import { WireStages } from "./form/WireStages";
import { HowMade } from "./HowMade";
import { StepList } from "./StepList";
import { ToolsToHand } from "./form/ToolsToHand";
import { addWords } from "../i18n";
import words from "../locales/en-form.json";

addWords(words);

type Step = Plan["steps"][number];

/** What to bend on, in which order, how the wire looks then, and what it springs to. */
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
        <ToolsToHand tools={plan?.tools ?? []} />
        <h2 className="mb-1 text-lead">{t("form.order")}</h2>
        <StepList station="form" onLook={look} {...props} />
        <GoneSteps {...props} />
        <div className="mt-4">
          <HowMade {...props} />
        </div>
      </section>
      <div className="space-y-4 self-start tablet:sticky tablet:top-4">
        {plan && <AtHand {...props} plan={plan} step={step} />}
        <AdviceList advice={advice} />
      </div>
    </>
  );
}

type View = "wire" | "formers" | "worn" | "oval" | "feels";

/** What is at hand, one view at a time, so that it stays beside the step that is worked on. */
function AtHand({ plan, piece, step }: StationProps & { plan: Plan; step: Step | undefined }) {
  const { t } = useTranslation();
  const views: View[] = [
    "wire",
    ...(plan.formers.length > 0 ? (["formers"] as const) : []),
    ...(shownHere(plan, "section") ? (["worn"] as const) : []),
    ...(plan.oval ? (["oval"] as const) : []),
    ...((plan.feels ?? []).length > 0 || plan.weakest ? (["feels"] as const) : []),
  ];
  const tab =
    "min-h-[44px] px-4 border-b-[3px] border-transparent text-muted data-[state=active]:border-accent data-[state=active]:text-ink data-[state=active]:font-semibold";
  return (
    <Tabs.Root defaultValue="wire">
      <Tabs.List className="mb-3 flex border-b hairline" aria-label={t("form.at_hand")}>
        {views.map((view) => (
          <Tabs.Trigger key={view} value={view} className={tab}>
            {t(`form.view.${view}`)}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="wire" className="space-y-4">
        <AtStep plan={plan} piece={piece} step={step} />
      </Tabs.Content>
      <Tabs.Content value="formers" className="space-y-4">
        <Whole plan={plan} id="former" className="h-[260px]" />
        <FormerTable formers={plan.formers} bends={plan.bends} />
        {!plan.formers.some((one) => one.band) && <CameOff plan={plan} />}
      </Tabs.Content>
      <Tabs.Content value="worn">
        <Whole plan={plan} id="section" className="h-[360px]" />
      </Tabs.Content>
      <Tabs.Content value="oval">
        <OvalFormer plan={plan} pieceId={piece.id} />
      </Tabs.Content>
      <Tabs.Content value="feels">
        <Feels plan={plan} />
      </Tabs.Content>
    </Tabs.Root>
  );
}

interface AtStepProps {
  plan: Plan;
  piece: StationProps["piece"];
  step: Step | undefined;
}

/** The wire that the step is about, after that step, and its bends; the part; the whole. */
function AtStep({ plan, piece, step }: AtStepProps) {
  const { t } = useTranslation();
  const sequence = plan.drawings.sheets.find((one) => one.id === "sequence");
  const entry = entryOf(step);
  const part = partSheet(sequence, entry, t("form.bears"));
  const bends = entry === "" ? plan.bends : bendsOf(plan, entry);
  const woven = (plan.woven ?? []).find((one) => one.entry === entry);
  return (
    <>
      {step && woven && <WovenStep {...{ piece, step }} body={woven} />}
      {step && <WireStages plan={plan} pieceId={piece.id} version={piece.version} step={step} />}
      {bends.length > 0 && <FormerTable formers={[]} bends={bends} />}
      {part && step && (
        <section className="rounded-sm border hairline bg-panel px-3 py-2">
          <h2 className="text-lead first-letter:uppercase">{step.title}</h2>
          <SheetDrawing sheet={part} colour={plan.colour} className="h-[200px]" />
        </section>
      )}
      <Whole plan={plan} id="sequence" className={part ? "h-[110px]" : "h-[190px]"} />
    </>
  );
}

interface WovenProps {
  body: NonNullable<Plan["woven"]>[number];
  piece: StationProps["piece"];
  step: Step;
}

/** A woven body as it is at a step: the rows that are done then. */
function WovenStep({ body, piece, step }: WovenProps) {
  const { data } = useQuery({
    ...queries.woven(piece.id, piece.version, body.entry.split("~")[0] ?? ""),
    enabled: !useBefore(),
  });
  if (!data) return null;
  // What is bound is looked at whole: it has no rows.
  const key = (step.of?.[0] ?? step.id).split("/").at(-1) ?? "";
  const rows = body.wires.length === 0 ? body.rows : (body.rows_at[key] ?? 0);
  return <WovenView key={step.id} shown={data} start={rows} className="h-[260px]" />;
}

/** One of the plan's drawings, where it belongs to this station. */
function shownHere(plan: Plan, id: string) {
  return plan.drawings.sheets.find((one) => one.id === id && one.stations.includes("form"));
}

/** One of the plan's drawings, with what it is called. */
function Whole({ plan, id, className }: { plan: Plan; id: string; className: string }) {
  const sheet = shownHere(plan, id);
  if (!sheet) return null;
  return (
    <section>
      <h2 className="text-lead">{sheet.title}</h2>
      <SheetDrawing sheet={sheet} colour={plan.colour} className={className} />
    </section>
  );
}

/** What was made for something that the piece no longer has. */
function GoneSteps({ piece }: StationProps) {
  const { t } = useTranslation();
  const gone = (piece.standing.steps ?? []).filter((one) => one.verdict === "not_needed");
  if (gone.length === 0) return null;
  return (
    <p className="mt-3 border-l-4 border-ink pl-3 text-body">
      <strong>{t("form.gone")}</strong> {gone.map((one) => one.says).join("; ")}
    </p>
  );
}
