import { ToggleGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import { asNumber, asText } from "./draft";
import { typedLength } from "../shared/length";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";
import { problemAt, type StationProps } from "./context";
import { SectionFields } from "../measures/SectionFields";

export const TEMPERS = ["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"];

export function WireChoice({ brief, plan, problems, edit }: StationProps) {
  const { t } = useTranslation();
  return (
    <div className="grid grid-cols-2 gap-3">
      {brief.wire.section ? (
        <p className="self-end pb-2.5">{plan?.wire}</p>
      ) : (
        <TextField
          label={t("make_up.wire")}
          className="[&_input]:text-head [&_input]:figures"
          value={asText(brief.wire.size)}
          problem={problemAt(problems, "wire.size", true)}
          hint={plan ? t("make_up.is", { wire: plan.wire }) : t("make_up.wire_hint")}
          onText={(size) => edit(["wire", "size"], size)}
        />
      )}
      <Select
        label={t("make_up.temper")}
        value={brief.wire.temper ?? "half_hard"}
        options={TEMPERS.map((value) => ({ value, label: t(`temper.${value}`) }))}
        onChoose={(temper) => edit(["wire", "temper"], temper)}
      />
    </div>
  );
}

// What an allowance is where none was typed [mm].
const USUAL: Record<string, number> = { trim: 1.5, margin: 0, shortest: 0, longest: 1500 };
const SCHOOLS = ["exact", "fixed", "sample", "record", "ratio"] as const;
const RATIO_OF = ["piece", "girth"] as const;

/** What is added to a cut, and by which school. */
export function Allowances({ brief, problems, edit }: StationProps) {
  const { t } = useTranslation();
  const cutting = brief.cutting ?? {};
  const school = cutting.school ?? "fixed";
  const unit = brief.unit ?? "mm";
  const field = (
    name: "trim" | "margin" | "sample_pin" | "sample_took" | "shortest" | "longest",
  ) => (
    <TextField
      label={t(`make_up.${name}`)}
      className="[&_input]:figures"
      inputMode="decimal"
      placeholder={typedLength(USUAL[name], unit)}
      value={typedLength(cutting[name], unit)}
      problem={problemAt(problems, `cutting.${name}`)}
      onText={(text) => edit(["cutting", name], text === "" ? undefined : text)}
    />
  );
  return (
    <details className="border-y hairline py-2" open={school !== "fixed" || undefined}>
      <summary className="flex min-h-[44px] items-center font-semibold">
        {t("make_up.allowances")}
        <span className="ml-2 font-normal text-muted">
          {t("make_up.allowances_are", {
            trim: typedLength(cutting.trim ?? USUAL.trim, unit),
            school: t(`school_of_margin.${school}`),
          })}
        </span>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {field("trim")}
        <Select
          label={t("make_up.school")}
          value={school}
          options={SCHOOLS.map((value) => ({ value, label: t(`school_of_margin.${value}`) }))}
          onChoose={(value) => edit(["cutting", "school"], value)}
        />
        {school === "fixed" && field("margin")}
        {school === "ratio" && (
          <>
            <TextField
              label={t("make_up.ratio")}
              className="[&_input]:figures"
              inputMode="decimal"
              placeholder="2"
              value={asText(cutting.ratio)}
              problem={problemAt(problems, "cutting.ratio")}
              onText={(text) => edit(["cutting", "ratio"], asNumber(text))}
            />
            <Select
              label={t("make_up.ratio_of")}
              value={cutting.ratio_of ?? "piece"}
              options={RATIO_OF.map((value) => ({ value, label: t(`make_up.ratio_${value}`) }))}
              onChoose={(value) => edit(["cutting", "ratio_of"], value)}
            />
          </>
        )}
        {school === "sample" && field("sample_pin")}
        {school === "sample" && field("sample_took")}
        {school === "sample" && (
          <TextField
            label={t("make_up.sample_wire")}
            placeholder={asText(brief.wire?.size)}
            value={asText(cutting.sample_wire)}
            problem={problemAt(problems, "cutting.sample_wire")}
            onText={(text) => edit(["cutting", "sample_wire"], text || undefined)}
          />
        )}
        {field("shortest")}
        {field("longest")}
        <label className="flex min-h-[44px] items-center gap-3 self-end leading-tight font-semibold">
          <input
            type="checkbox"
            className="size-6 shrink-0 accent-accent"
            checked={Boolean(cutting.off_reel)}
            onChange={(event) => edit(["cutting", "off_reel"], event.target.checked)}
          />
          {t("make_up.off_reel")}
        </label>
      </div>
    </details>
  );
}

/** Wire that is not round, where the construction can be made of it. */
export function SectionChoice({ brief, problems, edit }: StationProps) {
  return (
    <div className="grid grid-cols-2 items-end gap-3">
      <SectionFields
        unit={brief.unit ?? "mm"}
        section={brief.wire.section ?? null}
        problem={(name) => problemAt(problems, `wire.section.${name}`)}
        onSection={(section) => edit(["wire", "section"], section)}
      />
      <div className="col-span-2">
        <Problem says={problemAt(problems, "wire.section")} />
      </div>
    </div>
  );
}

export function MetalChoice({ brief, facts, edit, problems }: StationProps) {
  const { t } = useTranslation();
  return (
    <div>
      <span id="metal-label" className="mb-1 block font-semibold">
        {t("make_up.metal")}
      </span>
      <ToggleGroup.Root
        type="single"
        aria-labelledby="metal-label"
        className="flex flex-wrap gap-1.5"
        value={brief.wire.metal ?? "copper"}
        onValueChange={(metal) => metal && edit(["wire", "metal"], metal)}
      >
        {facts.metals
          .filter(({ cord }) => !cord)
          .map((metal) => (
            <ToggleGroup.Item
              key={metal.id}
              value={metal.id}
              className="flex min-h-[44px] items-center gap-2 rounded-sm border hairline bg-panel px-3 text-body hover:border-ink data-[state=on]:border-accent data-[state=on]:bg-tint data-[state=on]:ring-2 data-[state=on]:ring-accent"
            >
              <svg width="16" height="16" aria-hidden="true">
                <circle cx="8" cy="8" r="7.5" fill={metal.colour} />
              </svg>
              {metal.name}
            </ToggleGroup.Item>
          ))}
      </ToggleGroup.Root>
      {problemAt(problems, "wire.metal")}
      <MetalNotes facts={facts} metal={brief.wire.metal ?? "copper"} />
    </div>
  );
}

/** What the metal does to skin, and with time; how it is annealed. */
function MetalNotes({ facts, metal }: { facts: StationProps["facts"]; metal: string }) {
  const { t } = useTranslation();
  const notes = facts.metal_notes[metal];
  if (!notes?.skin) return null;
  return (
    <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3 text-small leading-snug">
      {(["skin", "tarnish", "anneal"] as const).map((name) => (
        <div key={name} className="contents">
          <dt className="text-muted">{t(`metal_note.${name}`)}</dt>
          <dd>{notes[name]}</dd>
        </div>
      ))}
    </dl>
  );
}
