import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import type { Piece, Plan, StepAtBench } from "../api/client";
import { queries } from "../api/queries";
import { SheetDrawing } from "../shared/drawings/SheetDrawing";
import { StraightWire } from "../shared/drawings/StraightWire";
import { useUnit } from "../shared/useUnit";
import { lengthText } from "../shared/length";
import { WovenView } from "../shared/drawings/WovenView";
import { isMarking } from "./benchMode";
import { entryOf, partSheet } from "./atHand";
import { bentBox, stageOf, stageSheet, wiresFor } from "../piece/stages";

interface Props {
  piece: Piece;
  step: StepAtBench;
}

/** What the step is about, as large as it goes: the wire to cut, bend or weave, else the piece. */
export function AtHand({ piece, step }: Props) {
  const { t } = useTranslation();
  const plan = piece.plan;
  const entry = entryOf(step.step);
  const wires = useQuery(queries.wires(piece.id, piece.version, entry)).data;
  const woven = (plan?.woven ?? []).find((one) => one.entry === entry);
  const body = useQuery({
    ...queries.woven(piece.id, piece.version, entry.split("~")[0] ?? ""),
    enabled: woven !== undefined,
  }).data;
  if (!plan) return null;
  const wire = step.cuts[0];
  const mine = plan.cuts.find((one) => one.id === wire?.key.split("#")[0]);
  const cut = mine ?? (step.step.station === "cut" ? plan.cuts[0] : undefined);
  if (cut)
    return (
      <div className="flex h-full flex-col justify-center">
        <StraightWire cut={cut} colour={cut.colour || plan.colour} on="panel" />
        {isMarking(step) && <Marks cut={cut} />}
      </div>
    );
  // Strands take a moment: better nothing than a wire that is not looked at.
  if (woven && !body) return <p className="p-4 text-muted">{t("loading")}</p>;
  if (woven && body) {
    const key = (step.step.of?.[0] ?? step.step.id).split("/").at(-1) ?? "";
    const rows = woven.wires.length === 0 ? woven.rows : (woven.rows_at[key] ?? 0);
    return <WovenView key={step.step.id} shown={body} start={rows} className="h-full" />;
  }
  const steps = plan.steps.map((one) => one.id);
  const shaped = wiresFor(wires ?? [], step.step.of?.[0] ?? step.step.id)[0];
  if (shaped) {
    const at = stageOf(shaped, steps, step.step.id);
    const stage = shaped.stages[at];
    const near = stage ? (bentBox(stage) ?? undefined) : undefined;
    const sheet = stageSheet(shaped, at);
    // The bend that is made from near by, and below it all of the wire.
    return (
      <div className="flex h-full flex-col">
        {near && (
          <SheetDrawing
            sheet={sheet}
            colour={shaped.colour}
            focus={near}
            className="min-h-0 grow basis-0"
          />
        )}
        <SheetDrawing
          sheet={sheet}
          colour={shaped.colour}
          className={near ? "h-[30%] border-t hairline" : "h-full"}
        />
      </div>
    );
  }
  const sequence = plan.drawings.sheets.find((one) => one.id === "sequence");
  const part = partSheet(sequence, entry, t("form.bears"));
  const fit = plan.drawings.sheets.find((one) => one.stations.includes(step.step.station));
  const sheet = part ?? (step.step.station === "fit" ? (fit ?? sequence) : (sequence ?? fit));
  return sheet ? <SheetDrawing sheet={sheet} colour={plan.colour} className="h-full" /> : null;
}

/** The marks of a wire from its left end, to be read from two metres. */
function Marks({ cut }: { cut: Plan["cuts"][number] }) {
  const unit = useUnit();
  return (
    <ol className="mx-auto mt-6 grid grid-cols-[auto_auto] items-baseline gap-x-5 gap-y-1">
      {cut.marks.map((mark) => (
        <li key={mark.label + mark.at_mm} className="contents">
          <span className="figures text-right text-figure leading-none font-semibold">
            {lengthText(mark.at_mm, unit, 1, "fractions")}
            <span className="ml-1 text-head font-normal">{unit}</span>
          </span>
          <span className="text-head">{mark.label}</span>
        </li>
      ))}
    </ol>
  );
}
