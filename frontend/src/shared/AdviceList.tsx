import { useTranslation } from "react-i18next";
import type { Advice } from "../api/client";

/** Judgement calls: what, why, and what to try. */
export function AdviceList({ advice, empty }: { advice: readonly Advice[]; empty?: string }) {
  const { t } = useTranslation();
  if (advice.length === 0) return empty ? <p className="text-muted">{empty}</p> : null;
  return (
    <ul className="space-y-3">
      {advice.map((one) => (
        <li
          key={one.id + one.field}
          className={`border-l-4 pl-3 ${one.severity === "note" ? "hairline" : "border-ink"}`}
        >
          <p className={one.severity === "note" ? "" : "font-semibold"}>
            {one.severity !== "note" && (
              <span className="mr-2 inline-block rounded-sm bg-ink px-1.5 text-note leading-5 text-on-ink">
                {t(`severity.${one.severity}`)}
              </span>
            )}
            {one.says}
          </p>
          <p className="text-small text-muted">{one.because}.</p>
          <p className="text-small">{one.try}</p>
        </li>
      ))}
    </ul>
  );
}
