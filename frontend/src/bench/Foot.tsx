import { useTranslation } from "react-i18next";
import type { StepAtBench } from "../api/client";
import { repeats, type Onward } from "./benchMode";
import { Button } from "../shared/Button";
import { Problem } from "../shared/TextField";

interface FootProps {
  step: StepAtBench;
  next: Onward;
  held: boolean;
  hidden: boolean;
  busy: boolean;
  says?: string;
  onOn: () => void;
  onBack: () => void;
  onAll: () => void;
  onNotDone: () => void;
}

/** Two large buttons, where a thumb or the side of a hand finds them. */
export function Foot({
  step,
  next,
  held,
  hidden,
  busy,
  says,
  onOn,
  onBack,
  onAll,
  onNotDone,
}: FootProps) {
  const { t } = useTranslation();
  if (hidden) return null;
  const many = !step.done && (step.cuts.length > 1 || repeats(step) > 1);
  const on = held || next.kind === "end_wait" ? "wait" : next.kind === "done" ? "" : next.kind;
  return (
    <footer className="sticky bottom-0 border-t border-ink bg-ground px-6 py-3">
      <Problem says={says} />
      <div className="flex flex-wrap items-center gap-3">
        <Button className="min-h-[64px] px-6 text-lead" onClick={onBack} aria-keyshortcuts="PageUp">
          {t("at.back")}
        </Button>
        {many && step.cuts.length === 0 && <Button onClick={onAll}>{t("at.all")}</Button>}
        {step.done && next.kind === "look" && (
          <Button onClick={onNotDone}>{t("at.not_done")}</Button>
        )}
        <span className="mx-auto text-body text-muted max-laptop:hidden">{t("at.pedal")}</span>
        <Button
          look="strong"
          className="ml-auto min-h-[64px] min-w-[18rem] px-8 text-title"
          disabled={busy || next.kind === "stay"}
          onClick={onOn}
          aria-keyshortcuts="Space PageDown"
        >
          {t(on === "" || on === "stay" ? "at.on" : `at.on_${on}`)}
        </Button>
      </div>
    </footer>
  );
}
