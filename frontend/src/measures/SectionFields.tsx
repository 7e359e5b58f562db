import { useTranslation } from "react-i18next";
import type { Unit } from "../api/client";
import { asNumber, asText } from "../piece/draft";
import { typedLength } from "../shared/length";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";

type Section = Record<string, unknown>;

/** What each section is asked for, and what it starts with; lengths in mm. */
const START: Record<string, Section> = {
  round: {},
  square: { side: 2 },
  half_round: { flat: 4 },
  flat: { width: 3.5, thickness: 1.9, edges: "rounded" },
  patterned: { width: 5, thickness: 1, fills: 0.8 },
  twisted: { strands: 2, strand: 1, pitch: 6 },
};
const OPTIONS: Record<string, readonly (string | number)[]> = {
  edges: ["rounded", "sharp"],
  strands: [2, 3, 4],
};

interface Props {
  /** As typed; null for round wire. */
  section: Section | null;
  /** The unit that a bare number is read in. */
  unit: Unit;
  problem?: (field: string) => string | undefined;
  onSection: (section: Section | null) => void;
}

/** The section of a wire, and the figures that it needs. */
export function SectionFields({ section, unit, problem, onSection }: Props) {
  const { t } = useTranslation();
  const shape = asText(section?.shape) || "round";
  return (
    <>
      <Select
        label={t("make_up.section")}
        value={shape}
        options={Object.keys(START).map((value) => ({ value, label: t(`section_of.${value}`) }))}
        onChoose={(chosen) =>
          onSection(chosen === "round" ? null : { shape: chosen, ...START[chosen] })
        }
      />
      {section &&
        Object.keys(START[shape] ?? {}).map((name) => {
          const options = OPTIONS[name];
          const set = (value: unknown) => onSection({ ...section, [name]: value });
          return options ? (
            <Select
              key={name}
              label={t(`section.${name}`)}
              value={asText(section[name] ?? options[0])}
              options={options.map((one) => ({
                value: String(one),
                label: typeof one === "number" ? String(one) : t(`edges.${one}`),
              }))}
              onChoose={(chosen) => set(asNumber(chosen))}
            />
          ) : (
            <TextField
              key={name}
              label={t(`section.${name}`)}
              className="[&_input]:figures"
              inputMode="decimal"
              value={name === "fills" ? asText(section[name]) : typedLength(section[name], unit)}
              problem={problem?.(name)}
              onText={(text) => set(name === "fills" ? asNumber(text) : text)}
            />
          );
        })}
    </>
  );
}
