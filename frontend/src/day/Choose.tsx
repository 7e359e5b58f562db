import { useTranslation } from "react-i18next";
import type { Day, DayIn } from "../api/client";
import { dayName } from "./day";

interface SideProps {
  day: Day;
  onChange: (part: Partial<DayIn>) => void;
  busy?: boolean;
}

/** Pieces that may be added to the day. */
export function Choose({ day, onChange, busy }: SideProps) {
  const { t } = useTranslation();
  const free = day.candidates.filter((one) => !day.pieces.includes(one.id));
  return (
    <section>
      <h2 className="mb-1 text-lead">{t("day.choose")}</h2>
      {free.length === 0 && <p className="text-muted">{t("day.all_chosen")}</p>}
      <ul className="max-h-[46vh] overflow-y-auto">
        {free.map((one) => (
          <li key={one.id} className="border-b hairline">
            <button
              type="button"
              disabled={busy}
              className="flex min-h-[44px] w-full items-center justify-between gap-3 text-left hover:bg-tint"
              onClick={() => onChange({ pieces: [...day.pieces, one.id] })}
            >
              <span className="min-w-0 truncate">{one.name}</span>
              <span className="shrink-0 text-note text-muted">
                {one.due ? dayName(`${one.due}T`) : t(`waits.${one.waits_for}`)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
