import { useTranslation } from "react-i18next";
import type { Facts } from "../../api/client";
import { listFrom, stillAsked, type Bead, type Section } from "../beads";
import { asNumber, asText } from "../draft";
import { listIn, partIn, type Part } from "../sequence";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem, TextField } from "../../shared/TextField";
import { problemAt, type StationProps } from "../context";
import { BeadList } from "./BeadList";
import { ChoiceFields } from "../ChoiceFields";
import { OwnMoves } from "./OwnMoves";

interface PartProps extends StationProps {
  part: Part;
  at: string;
  onPart: (part: Part) => void;
  /** Choices that are no matter here. */
  without?: readonly string[];
}

/** The choices of one part, in the sequence, in the middle, or in a strand of another. */
export function PartFields(props: PartProps) {
  const { part, at, onPart, facts, brief, shop, problems } = props;
  const shelf = facts.parts.find((one) => one.kind === part.kind);
  const defaults = shelf?.defaults ?? {};
  const row = listIn<Bead>(part.row);
  const unit = brief.unit ?? "mm";
  return (
    <div className="space-y-3">
      {"moves" in defaults && (
        <OwnMoves {...{ part, at, facts, shop, problems, onPart, unit }} defaults={defaults} />
      )}
      {"row" in defaults && <Row {...props} row={row} defaults={defaults} />}
      {"head" in defaults && <Head {...props} defaults={defaults} />}
      {"sections" in defaults && <Sections {...props} defaults={defaults} />}
      <ChoiceFields
        choices={stillAsked(shelf?.choices ?? [], row.length > 0).filter(
          (one) => !props.without?.includes(one.name),
        )}
        value={part}
        at={at}
        problems={problems}
        unit={unit}
        onSet={(name, value) => onPart({ ...part, [name]: value })}
      />
      {"link" in defaults && <Strand {...props} defaults={defaults} />}
      <Problem says={problemAt(problems, at)} />
    </div>
  );
}

type WithDefaults = PartProps & { defaults: Record<string, unknown> };

/** One bead, or a list of them where it stood. */
function Row({ row, defaults, ...props }: WithDefaults & { row: Bead[] }) {
  const { part, at, onPart, facts, brief, problems } = props;
  const { t } = useTranslation();
  if (row.length === 0)
    return (
      <Button onClick={() => onPart({ ...part, row: listFrom(part, defaults) })}>
        {t("beads.make_list")}
      </Button>
    );
  return (
    <BeadList
      label={t("beads.row")}
      beads={row}
      at={`${at}.row`}
      unit={brief.unit ?? "mm"}
      optional
      onBeads={(next) => onPart({ ...part, row: next })}
      {...{ facts, problems }}
    />
  );
}

function Head({ defaults, ...props }: WithDefaults) {
  const { part, at, onPart, facts, brief, problems } = props;
  const { t } = useTranslation();
  return (
    <BeadList
      label={t("beads.head")}
      beads={listIn<Bead>(part.head ?? defaults.head)}
      at={`${at}.head`}
      unit={brief.unit ?? "mm"}
      optional
      onBeads={(head) => onPart({ ...part, head })}
      {...{ facts, problems }}
    />
  );
}

/** What a strand is made of from above: lists of beads, each so many times. */
function Sections({ defaults, ...props }: WithDefaults) {
  const { part, at, onPart, facts, brief, problems } = props;
  const { t } = useTranslation();
  const sections = listIn<Section>(part.sections ?? defaults.sections);
  const set = (next: Section[]) => onPart({ ...part, sections: next });
  return (
    <div className="space-y-3">
      {sections.map((one, i) => (
        <div key={i} className="border-l-2 border-hair pl-3">
          <BeadList
            label={t("beads.section", { n: i + 1 })}
            beads={one.row ?? []}
            at={`${at}.sections.${i}.row`}
            unit={brief.unit ?? "mm"}
            onBeads={(row) => set(sections.map((old, n) => (n === i ? { ...old, row } : old)))}
            {...{ facts, problems }}
          />
          <div className="mt-1.5 flex items-end gap-2">
            <TextField
              label={t("beads.section_times")}
              className="w-40 [&_input]:figures"
              inputMode="numeric"
              value={asText(one.times ?? 1)}
              problem={problemAt(problems, `${at}.sections.${i}.times`)}
              onText={(text) =>
                set(sections.map((old, n) => (n === i ? { ...old, times: asNumber(text) } : old)))
              }
            />
            <Button
              look="quiet"
              disabled={sections.length < 2}
              onClick={() => set(sections.filter((_, n) => n !== i))}
            >
              {t("beads.drop_section", { n: i + 1 })}
            </Button>
          </div>
        </div>
      ))}
      <Button onClick={() => set([...sections, { row: sections.at(-1)?.row ?? [{}], times: 1 }])}>
        {t("beads.add_section")}
      </Button>
    </div>
  );
}

/** What the strands of a swag are made of. */
function Strand({ defaults, ...props }: WithDefaults) {
  const { part, at, onPart, facts } = props;
  const { t } = useTranslation();
  const link = partIn(part.link ?? defaults.link) ?? { kind: "" };
  return (
    <div className="space-y-3 border-l-2 border-hair pl-3">
      <Select
        label={t("beads.strand_of")}
        value={link.kind}
        options={linksOf(facts, part.kind).map((one) => ({ value: one.kind, label: one.says }))}
        onChoose={(kind) => onPart({ ...part, link: { kind } })}
      />
      <PartFields
        {...props}
        part={link}
        at={`${at}.link`}
        without={COUNTED}
        onPart={(next) => onPart({ ...part, link: next })}
      />
    </div>
  );
}

/** A strand is counted by the plan. */
const COUNTED = ["links"];

/** What a strand may be made of: everything that links, but no swag. */
function linksOf(facts: Facts, own: string) {
  return facts.parts.filter((one) => one.role === "link" && one.kind !== own);
}
