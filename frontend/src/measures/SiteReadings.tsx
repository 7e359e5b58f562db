import { useTranslation } from "react-i18next";
import type { BodyMeasure, Measure, Reading } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { asText } from "../piece/draft";
import { lengthText } from "../shared/length";
import { SLOTS } from "./readings";
import { Figure } from "../shared/Figure";
import { Problem } from "../shared/TextField";
import { Select } from "../shared/Select";
import { problemAt, type StationProps } from "../piece/context";
import { ReadingFields } from "./ReadingFields";

/** Up to three readings of one site, how they were taken, and what comes of them. */
export function SiteReadings(props: StationProps & { site: string; onLook: () => void }) {
  const { onLook, site, brief, plan, problems, facts, edit } = props;
  const { t } = useTranslation();
  const unit = brief.unit ?? "mm";
  const measure: Measure = brief.measures?.[site] ?? {};
  const readings = measure.readings ?? [];
  const girth = plan?.girths.find((one) => one.site === site);
  const field = `measures.${site}`;
  return (
    <fieldset onFocus={onLook}>
      <legend className="mb-1 text-lead font-bold">{t(`site.${site}`)}</legend>
      <ReadingFields
        site={site}
        readings={readings}
        facts={facts}
        unit={unit}
        wrong={SLOTS.filter((i) => problemAt(problems, `${field}.readings.${i}.value`))}
        onChange={(next) => edit(["measures", site], { ...measure, readings: next })}
      />
      <p className="mt-1 text-body text-muted">
        {girth && !girth.guessed && <GirthLines girth={girth} readings={readings} />}
        {!girth && problems.length === 0 && t("measure.waits")}
      </p>
      <Problem says={problemAt(problems, field, true)} />
      {readings.every((r) => !asText(r.value)) &&
        facts.populations.some((range) => range.site === site) && (
          <GuessRow {...props} measure={measure} />
        )}
    </fieldset>
  );
}

interface LinesProps {
  girth: BodyMeasure;
  readings: Reading[];
}

/** What comes of the readings; a wrist swells through the day, so the hour is shown too. */
function GirthLines({ girth, readings }: LinesProps) {
  const { t } = useTranslation();
  const last = readings.findLast((reading) => reading.taken)?.taken;
  const corrected = girth.corrections_mm[0] ?? 0;
  const more = [
    girth.count > 1 && [t("measure.spread"), girth.spread_mm, 1],
    girth.standard_error_mm != null && [t("measure.error"), girth.standard_error_mm, 2],
    corrected !== 0 && [t("measure.corrected"), corrected, 1],
  ].filter((part) => part !== false) as [string, number, number][];
  return (
    <>
      {t("measure.mean")}{" "}
      <strong className="text-ink">
        <Figure mm={girth.value_mm} />
      </strong>
      {", "}
      {t("measure.good_to")} <Figure mm={girth.plus_minus_mm} />
      <span className="block text-note">
        {more.map(([name, value, places]) => (
          <span key={name}>
            {name} <Figure mm={value} places={places} />
            {" · "}
          </span>
        ))}
        {last && t("measure.taken", { when: hourOf(last) })}
      </span>
    </>
  );
}

function hourOf(taken: string): string {
  return new Date(taken).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}

function GuessRow({
  site,
  facts,
  edit,
  plan,
  measure,
}: StationProps & { site: string; measure: Measure }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const girth = plan?.girths.find((one) => one.site === site);
  const ranges = facts.populations.filter((range) => range.site === site);
  const chosen = measure.guess
    ? `${measure.guess.population}:${measure.guess.percentile ?? 50}`
    : "";
  const options = ranges.flatMap((range) =>
    ([5, 50, 95] as const).map((percentile) => ({
      value: `${range.id}:${percentile}`,
      label: t("measure.guess_option", {
        group: t(`group.${range.group}`),
        percentile,
        value: lengthText(range[`p${percentile}`], unit),
        unit,
      }),
    })),
  );
  return (
    <>
      <Select
        label={t("measure.guess")}
        className="mt-2 text-body"
        value={chosen}
        options={[{ value: "", label: t("measure.no_guess") }, ...options]}
        onChoose={(value) => {
          const [population = "", percentile] = value.split(":");
          const guess = value ? { population, percentile: Number(percentile) } : null;
          edit(["measures", site], { ...measure, guess });
        }}
      />
      {girth?.guessed && (
        <p className="mt-1 text-body">
          <span className="mr-2 rounded-sm bg-ink px-1.5 text-note text-on-ink">
            {t("measure.guessed")}
          </span>
          <Figure mm={girth.value_mm} />, {t("measure.good_to")} <Figure mm={girth.plus_minus_mm} />
          <span className="block text-note text-muted">{girth.source}</span>
        </p>
      )}
    </>
  );
}
