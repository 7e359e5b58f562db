import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { WaitView } from "../api/client";
import { left, spanText } from "./benchMode";
import { Button } from "../shared/Button";
import type { View } from "./useActions";

interface HeldProps {
  view: View;
  wait: WaitView;
  now: number;
  marks: boolean;
  onHurry: () => void;
}

/** A piece that is left alone: how long still, and what else there is to do. */
export function HeldUp({ view, wait, now, marks, onHurry }: HeldProps) {
  const { t } = useTranslation();
  const rest = left(wait, now);
  const over = rest <= 0;
  const others = view.in_hand.filter((one) => one.id !== view.id);
  return (
    <main
      id="work"
      className={`flex grow flex-col items-center justify-center gap-6 p-6 text-center ${over && marks ? "bg-accent text-on-ink" : ""}`}
    >
      <h2 className="text-figure-small leading-tight first-letter:uppercase" data-testid="step">
        {wait.title}
      </h2>
      <p className="figures text-far leading-none font-semibold" role="timer">
        {spanText(rest)}
      </p>
      <p className="text-page">{t(over ? "at.held_over" : "at.held")}</p>
      {!over && (
        <>
          <Button onClick={onHurry}>{t("at.hurry")}</Button>
          <div>
            <h3 className="text-lead">{t("at.meanwhile")}</h3>
            {others.length === 0 && <p className="text-muted">{t("at.meanwhile_none")}</p>}
            <ul className="mt-2 flex flex-wrap justify-center gap-2">
              {others.map((one) => (
                <li key={one.id}>
                  <Link
                    className="flex min-h-[44px] items-center rounded-sm border border-ink px-4 text-lead font-semibold"
                    to={`/pieces/${one.id}/bench`}
                  >
                    {one.name}
                  </Link>
                </li>
              ))}
            </ul>
          </div>
        </>
      )}
    </main>
  );
}

/** The last step is done: one more press puts it into the log. */
export function AllDone({ name, busy, onOn }: { name: string; busy: boolean; onOn: () => void }) {
  const { t } = useTranslation();
  return (
    <main id="work" className="flex grow flex-col items-center justify-center gap-6 p-6">
      <h2 className="text-figure leading-tight" data-testid="step">
        {t("at.all_done")}
      </h2>
      <p className="text-page">{name}</p>
      <Button look="strong" className="text-lead" disabled={busy} onClick={onOn}>
        {t("at.on_finish")}
      </Button>
    </main>
  );
}

/** What was made is in the log. */
export function InTheLog() {
  const { t } = useTranslation();
  return (
    <main id="work" className="flex grow flex-col items-center justify-center gap-6 p-6">
      <h2 className="text-figure leading-tight" data-testid="step">
        {t("at.finished")}
      </h2>
      <Link className="text-page underline underline-offset-4" to="/log">
        {t("at.to_log")}
      </Link>
    </main>
  );
}
