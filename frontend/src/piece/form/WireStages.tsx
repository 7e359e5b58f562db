import { useQuery } from "@tanstack/react-query";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan, WireShown } from "../../api/client";
import { queries } from "../../api/queries";
import { useBefore } from "../useBefore";
import { SheetDrawing } from "../../shared/drawings/SheetDrawing";
import { entryOf } from "../../bench/atHand";
import { useKeys } from "../../shared/useKeys";
import { bentBox, pinsOf, played, stageOf, stageSheet, wiresFor } from "../stages";
import { Figure } from "../../shared/Figure";
import { HardnessCurve } from "./HardnessCurve";

interface Props {
  plan: Plan;
  pieceId: number;
  version: number;
  step: Plan["steps"][number];
}

// Of one entry so many wires are drawn; a tassel's sections are alike.
const MOST_SHOWN = 3;

/** Every wire of what the step is about, as it is after that step, played with the arrow keys. */
export function WireStages({ plan, pieceId, version, step }: Props) {
  const { data } = useQuery({
    ...queries.wires(pieceId, version, entryOf(step)),
    enabled: !useBefore(),
  });
  const wires = wiresFor(data ?? [], step.of?.[0] ?? step.id).slice(0, MOST_SHOWN);
  const steps = plan.steps.map((one) => one.id);
  return wires.map((wire, i) => (
    <OneWire
      key={`${wire.id} ${step.id}`}
      wire={wire}
      start={stageOf(wire, steps, step.id)}
      leads={i === 0}
    />
  ));
}

interface WireProps {
  wire: WireShown;
  start: number;
  /** The wire that the arrow keys play. */
  leads: boolean;
}

function OneWire({ wire, start, leads }: WireProps) {
  const { t } = useTranslation();
  const [at, go] = useState(start);
  const stage = wire.stages[at];
  const count = wire.stages.length;
  const move = (by: number) => go(played(at, by, count));
  useKeys(leads ? { arrowleft: () => move(-1), arrowright: () => move(1) } : {});
  if (!stage) return null;
  const pins = pinsOf(stage);
  const sheet = stageSheet(wire, at);
  const near = bentBox(stage) ?? undefined;
  const button =
    "flex size-11 items-center justify-center rounded-sm border hairline bg-panel hover:border-ink disabled:opacity-40";
  return (
    <section className="rounded-sm border hairline bg-panel px-3 py-2">
      <div className="flex items-center gap-2">
        <h2 className="mr-auto text-lead first-letter:uppercase">{wire.label}</h2>
        <button
          type="button"
          className={button}
          disabled={at === 0}
          aria-label={t("stages.back")}
          onClick={() => move(-1)}
        >
          <ChevronLeft aria-hidden="true" />
        </button>
        <input
          type="range"
          className="h-11 w-28 accent-[var(--color-accent)]"
          min={0}
          max={count - 1}
          value={at}
          aria-label={t("stages.of", { wire: wire.label })}
          aria-valuetext={stage.title}
          onChange={(event) => go(Number(event.target.value))}
        />
        <button
          type="button"
          className={button}
          disabled={at === count - 1}
          aria-label={t("stages.on")}
          onClick={() => move(1)}
        >
          <ChevronRight aria-hidden="true" />
        </button>
      </div>
      {near && (
        <SheetDrawing sheet={sheet} colour={wire.colour} className="h-[170px]" focus={near} />
      )}
      <SheetDrawing
        sheet={sheet}
        colour={wire.colour}
        className={near ? "h-[84px]" : "h-[220px]"}
      />
      <p role="status" className="text-body">
        <strong className="first-letter:uppercase">{stage.title}</strong>
        {pins.map((pin) => (
          <span key={pin} className="ml-2">
            {t("stages.pin")} <Figure mm={pin} className="font-semibold" />
          </span>
        ))}
        {(stage.ghost ?? []).length > 1 && (
          <span className="ml-2 text-muted">{t("stages.ghost")}</span>
        )}
      </p>
      <HardnessCurve wire={wire} step={stage.step} />
    </section>
  );
}
