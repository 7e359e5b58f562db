import { X } from "lucide-react";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Day, DayIn } from "../api/client";
import { Button } from "../shared/Button";
import { TextField } from "../shared/TextField";

const RESOURCES = ["hands", "torch", "pickle", "tumbler"] as const;

interface SideProps {
  day: Day;
  onChange: (part: Partial<DayIn>) => void;
}

/** When there are hands, and what there is of what only one piece can have at a time. */
export function Hours({ day, onChange }: SideProps) {
  const { t } = useTranslation();
  const [hours, setHours] = useState(day.hours);
  const put = (n: number, name: "start" | "end", text: string) =>
    setHours(hours.map((one, i) => (i === n ? { ...one, [name]: text } : one)));
  const keep = () => JSON.stringify(hours) !== JSON.stringify(day.hours) && onChange({ hours });
  return (
    <section className="mt-5">
      <h2 className="mb-1 text-lead">{t("day.hours")}</h2>
      {hours.map((one, n) => (
        <div key={n} className="mb-2 flex items-center gap-2">
          <TextField
            label={t("day.from", { n: n + 1 })}
            labelHidden
            value={one.start}
            onText={(x) => put(n, "start", x)}
            onBlur={keep}
          />
          –
          <TextField
            label={t("day.to", { n: n + 1 })}
            labelHidden
            value={one.end}
            onText={(x) => put(n, "end", x)}
            onBlur={keep}
          />
          <Button
            className="px-2"
            aria-label={t("day.drop_hours", { n: n + 1 })}
            disabled={hours.length === 1}
            onClick={() => onChange({ hours: day.hours.filter((_, i) => i !== n) })}
          >
            <X aria-hidden="true" size={18} />
          </Button>
        </div>
      ))}
      <Button onClick={() => onChange({ hours: [...day.hours, { start: "19:00", end: "21:00" }] })}>
        {t("day.add_hours")}
      </Button>
      <h2 className="mt-4 mb-1 text-lead">{t("day.there_is")}</h2>
      <div className="grid grid-cols-2 gap-2">
        {RESOURCES.map((name) => (
          <label key={name} className="flex items-center justify-between gap-2">
            {t(`day.resource.${name}`)}
            <input
              type="number"
              min={0}
              max={9}
              className="field figures w-16"
              defaultValue={day.there_is[name] ?? 1}
              onBlur={(event) => {
                const count = Number(event.target.value);
                if (count !== day.there_is[name])
                  onChange({ there_is: { ...day.there_is, [name]: count } });
              }}
            />
          </label>
        ))}
      </div>
    </section>
  );
}
