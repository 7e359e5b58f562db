import { Checkbox } from "radix-ui";
import { Check } from "lucide-react";
import { useTranslation } from "react-i18next";
import type { Plan, Station } from "../api/client";
import { useBefore } from "./useBefore";
import { changesOf, isDone } from "./standing";
import { Cautions } from "../shared/Cautions";
import type { StationProps } from "./context";
import { useTick } from "./useTick";
import { Problem } from "../shared/TextField";

interface Props extends StationProps {
  station: Station;
  /** A step was pointed at, or left again. */
  onLook?: (id: string | null) => void;
}

/** The steps of a station in order, each with its check and its cautions, ticked off as done. */
export function StepList({ station, onLook, ...props }: Props) {
  const { plan, piece } = props;
  const { t } = useTranslation();
  const tick = useTick(props);
  const before = useBefore();
  if (!plan) return <p className="text-muted">{t("ledger.waits")}</p>;
  const steps = plan.steps.filter((step) => step.station === station);
  const done = new Set(piece.ticks.filter((one) => one.kind === "step").map((one) => one.key));
  const next = steps.find((step) => !isDone(step, done))?.id;
  return (
    <>
      <ol className="space-y-1">
        {steps.map((step) => (
          <StepRow
            locked={before}
            key={step.id}
            step={step}
            plan={plan}
            done={isDone(step, done)}
            changes={changesOf(step, piece.standing)}
            next={step.id === next}
            onLook={onLook}
            onTick={(ticked) => tick.mutate({ kind: "step", key: step.id, ticked })}
          />
        ))}
      </ol>
      <Problem says={tick.error?.message} />
    </>
  );
}

interface RowProps {
  step: Plan["steps"][number];
  plan: Plan;
  done: boolean;
  next: boolean;
  /** It can't be ticked: it is a step of the plan before. */
  locked: boolean;
  /** What has changed about it since it was done. */
  changes: string[];
  onLook?: (id: string | null) => void;
  onTick: (ticked: boolean) => void;
}

function StepRow({ step, plan, done, next, changes, onLook, onTick, locked }: RowProps) {
  const { t } = useTranslation();
  const fresh = done && changes.length === 0;
  return (
    <li
      className={`flex gap-3 rounded-sm border px-3 py-2 ${next ? "border-ink bg-panel" : "border-transparent"}`}
      onPointerEnter={() => onLook?.(step.id)}
      onFocus={() => onLook?.(step.id)}
    >
      <Checkbox.Root
        checked={done}
        disabled={locked}
        onCheckedChange={(checked) => onTick(checked === true)}
        aria-label={step.title}
        className="mt-0.5 flex disabled:opacity-45 size-11 shrink-0 items-center justify-center rounded-sm border border-muted bg-panel data-[state=checked]:border-accent data-[state=checked]:bg-accent"
      >
        <Checkbox.Indicator>
          <Check aria-hidden="true" className="text-on-ink" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <div>
        <h3 className={`text-lead ${fresh ? "text-muted line-through" : ""}`}>{step.title}</h3>
        {changes.length > 0 && (
          <p className="my-1 border-l-4 border-ink pl-3 text-body">
            <strong>{t("step.changed")}</strong> {changes.join("; ")}
          </p>
        )}
        {!fresh && (
          <>
            <p>{step.says}</p>
            {step.check && (
              <p className="mt-1 text-body">
                <strong className="text-accent">{t("step.check")}</strong> {step.check}
              </p>
            )}
            <Cautions plan={plan} ids={step.cautions ?? []} />
          </>
        )}
      </div>
    </li>
  );
}
