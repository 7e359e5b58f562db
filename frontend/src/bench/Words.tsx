import { useTranslation } from "react-i18next";
import type { StepAtBench } from "../api/client";
import { isMarking, partOf, spanText } from "./benchMode";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";

/** The one number, what to do, what to look at, and what can hurt. */
export function Words({ step, children }: { step: StepAtBench; children: React.ReactNode }) {
  const { t } = useTranslation();
  const wire = step.cuts[0];
  const part = partOf(step);
  // Marks stand in the drawing, all of them.
  const alone = isMarking(step) ? null : step.figure;
  const figure = wire ? { label: wire.label, value: wire.length_mm, count: false } : alone;
  return (
    <div className="flex flex-col gap-3">
      <h2 className="text-page leading-tight first-letter:uppercase" data-testid="step">
        {step.step.title}
        {step.done && (
          <span className="ml-3 rounded-sm bg-accent px-2 text-head text-on-ink">
            {t("at.is_done")}
          </span>
        )}
      </h2>
      <div className="flex flex-wrap items-end gap-x-10 gap-y-2">
        {figure && (
          <p>
            {figure.count ? (
              <span className="figures text-display leading-none font-semibold">
                {figure.value}
              </span>
            ) : (
              <Figure mm={figure.value} unit className="text-display leading-none font-semibold" />
            )}
            <span className="block text-head text-muted">
              {figure.label}
              {wire && ` · ${wire.wire} ${wire.metal}`}
            </span>
          </p>
        )}
        {part && (
          <p className="figures text-figure-small leading-none font-semibold" role="status">
            {t("at.part", part)}
          </p>
        )}
      </div>
      <p className="max-w-[38rem] text-title leading-snug">{step.step.says}</p>
      {step.step.check && (
        <p className="max-w-[38rem] border-l-[6px] border-accent pl-4 text-head leading-snug">
          <strong className="text-accent">{t("at.check")}</strong> {step.step.check}
        </p>
      )}
      {step.cautions.map((one) => (
        <p
          key={one.id}
          className="max-w-[38rem] border-l-[6px] border-alarm pl-4 text-lead leading-snug"
        >
          <strong className="block">{one.says}</strong>
          <span className="block first-letter:uppercase">{one.because}.</span>
        </p>
      ))}
      {children}
    </div>
  );
}

interface ClockProps {
  step: StepAtBench;
  now: number;
  /** When the server said how long the step has been worked on. */
  at: number;
  onPause: () => void;
  onGo: () => void;
}

/** The step's own clock, beside what it usually takes; a pause is taken out. */
export function Clock({ step, now, at, onPause, onGo }: ClockProps) {
  const { t } = useTranslation();
  if (step.done) return null;
  const seconds = step.seconds + (step.running ? Math.max(0, (now - at) / 1000) : 0);
  return (
    <p className="flex items-center gap-3 text-lead text-muted">
      <span className="figures text-ink">{spanText(Math.floor(seconds))}</span>
      {t("at.usually", { minutes: Math.max(1, Math.round(step.step.minutes ?? 0)) })}
      <Button onClick={step.running ? onPause : onGo}>
        {t(step.running ? "at.pause" : "at.go")}
      </Button>
    </p>
  );
}
