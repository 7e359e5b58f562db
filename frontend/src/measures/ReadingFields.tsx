import { useTranslation } from "react-i18next";
import type { Facts, Reading, Unit } from "../api/client";
import { asText } from "../piece/draft";
import { typedLength } from "../shared/length";
import { mannerOf, SLOTS, withManner, withReading } from "./readings";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";

interface Props {
  site: string;
  readings: readonly Reading[];
  facts: Facts;
  unit: Unit;
  /** Slots that hold what can't be read. */
  wrong?: readonly number[];
  /** Whether to ask how it was held; what was noted of it is shown anyway. */
  askPosture?: boolean;
  /** There is little room: the method stands on a line of its own. */
  narrow?: boolean;
  onChange: (readings: Reading[]) => void;
}

/** The readings of one site, up to three, each with all that was noted of it. */
export function ReadingFields({
  site,
  readings,
  facts,
  unit,
  wrong = [],
  askPosture,
  narrow,
  onChange,
}: Props) {
  const { t } = useTranslation();
  const kind = facts.sites.find((one) => one.id === site)?.kind ?? "girth";
  const methods = facts.methods.filter((one) => one.kinds.includes(kind));
  const manner = mannerOf(readings, kind);
  const how = facts.methods.find((one) => one.id === manner.method);
  const all = (part: Partial<Reading>) => onChange(withManner(readings, part));
  return (
    <>
      <div className={`grid gap-2 ${narrow ? "grid-cols-3" : "grid-cols-[1fr_1fr_1fr_1.25fr]"}`}>
        {SLOTS.map((i) => (
          <TextField
            key={i}
            label={t("measure.reading", { site: t(`site.${site}`), n: i + 1 })}
            labelHidden
            className={`[&_input]:figures [&_input]:px-1.5 [&_input]:text-right ${asText(readings[i]?.value).length > 6 ? "text-note [&_input]:tracking-tighter" : "text-lead"}`}
            placeholder="–"
            inputMode="decimal"
            value={typedLength(readings[i]?.value, unit)}
            aria-invalid={wrong.includes(i) ? true : undefined}
            onText={(value) =>
              onChange(withReading(readings, i, value, manner, new Date().toISOString()))
            }
          />
        ))}
        <Select
          label={t("measure.method_of", { site: t(`site.${site}`) })}
          labelHidden
          className={`text-body ${narrow ? "col-span-3" : ""}`}
          value={manner.method ?? "tape"}
          options={methods.map((one) => ({ value: one.id, label: t(`method.${one.id}`) }))}
          onChoose={(value) => all({ method: value as Reading["method"] })}
        />
      </div>
      <div className={`mt-2 grid gap-2 ${narrow ? "" : "grid-cols-2"}`}>
        {how && how.along !== "none" && kind === "girth" && (
          <TextField
            label={t("measure.thickness")}
            value={typedLength(manner.thickness, unit)}
            placeholder={typedLength(how.thickness, unit)}
            onText={(thickness) => all({ thickness })}
          />
        )}
        {how?.needs_ease && (
          <TextField
            label={t("measure.piece_ease")}
            value={typedLength(manner.ease, unit)}
            onText={(ease) => all({ ease })}
          />
        )}
        {(askPosture || manner.posture) && (
          <TextField
            label={t("measure.posture")}
            placeholder={t("measure.posture_usual")}
            maxLength={40}
            value={asText(manner.posture)}
            onText={(posture) => all({ posture })}
          />
        )}
      </div>
    </>
  );
}
