import { useTranslation } from "react-i18next";
import {
  changed,
  dottedOf,
  duplicated,
  entryAt,
  grouped,
  ungrouped,
  without,
  type Entry,
  type Path,
  listIn,
} from "../sequence";
import { asNumber, asText } from "../draft";
import { typedLength } from "../../shared/length";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem, TextField } from "../../shared/TextField";
import { problemAt, type StationProps } from "../context";
import { PartFields } from "./PartFields";

type Props = StationProps & {
  entries: Entry[];
  selected: Path;
  onChange: (entries: Entry[]) => void;
  onSelect: (path: Path | null) => void;
};

/** Everything about the entry that is picked out: its part's own choices, and how often. */
export function Inspector(props: Props) {
  const { entries, selected, facts, problems, onChange, onSelect } = props;
  const { t } = useTranslation();
  const entry = entryAt(entries, selected);
  if (!entry) return null;
  const at = `piece.${dottedOf(selected)}`;
  const set = (by: Partial<Entry>) => onChange(changed(entries, selected, by));
  const shelf = facts.parts.find((part) => part.kind === entry.part?.kind);
  const listed = listIn(entry.part?.row).length > 0;
  return (
    <section className="space-y-3" aria-label={t("sequence.inspector")}>
      <div>
        <h2 className="text-lead first-letter:uppercase">
          {shelf?.says ?? t(entry.evenly ? "sequence.evenly" : "sequence.group")}
        </h2>
        <p className="text-small leading-snug text-muted">
          {shelf?.help ?? t(entry.evenly ? "sequence.evenly_help" : "sequence.group_help")}
        </p>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <Button onClick={() => onChange(duplicated(entries, selected))}>
          {t("sequence.duplicate")}
        </Button>
        <Button
          onClick={() =>
            onChange(entry.group ? ungrouped(entries, selected) : grouped(entries, selected))
          }
        >
          {t(entry.group ? "sequence.ungroup" : "sequence.group_next")}
        </Button>
        <Button
          onClick={() => {
            onChange(without(entries, selected));
            onSelect(null);
          }}
        >
          {t("sequence.remove")}
        </Button>
      </div>
      {entry.so_far && (
        <p className="flex flex-wrap items-center gap-x-3 border-l-[6px] border-accent pl-3">
          {t("sequence.so_far", {
            count: Number(entry.so_far.count),
            over: asText(entry.so_far.over),
          })}
          <Button onClick={() => set({ so_far: null })}>{t("sequence.forget")}</Button>
          <Problem says={problemAt(problems, `${at}.so_far`, true)} />
        </p>
      )}
      <RepeatFields
        entry={entry}
        at={at}
        {...props}
        onSet={set}
        grades={Boolean(shelf?.grades) && !listed}
      />
      {entry.part && (
        <PartFields
          {...props}
          part={entry.part}
          at={`${at}.part`}
          onPart={(part) => set({ part })}
        />
      )}
      <Problem says={problemAt(problems, at) ?? problemAt(problems, `${at}.part`)} />
    </section>
  );
}

interface RepeatProps extends StationProps {
  entry: Entry;
  at: string;
  grades: boolean;
  onSet: (by: Partial<Entry>) => void;
}

function RepeatFields({ entry, at, grades, brief, problems, onSet }: RepeatProps) {
  const { t } = useTranslation();
  const own = Object.keys(brief.palette?.own ?? {});
  const evenly = entry.group?.length === 2 && entry.group.every((one) => one.part);
  return (
    <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
      <label className="flex min-h-[44px] items-center gap-2 font-semibold">
        <input
          type="checkbox"
          className="size-6 accent-accent"
          checked={Boolean(entry.fill)}
          onChange={(event) => onSet({ fill: event.target.checked })}
        />
        {t("sequence.fill")}
      </label>
      {evenly && (
        <label className="flex min-h-[44px] items-center gap-2 font-semibold">
          <input
            type="checkbox"
            className="size-6 accent-accent"
            checked={Boolean(entry.evenly)}
            onChange={(event) => onSet({ evenly: event.target.checked })}
          />
          {t("sequence.lay_evenly")}
        </label>
      )}
      {entry.evenly && (
        <TextField
          label={t("sequence.fillers")}
          className="w-28 [&_input]:figures"
          inputMode="numeric"
          value={asText(entry.fillers ?? 0)}
          onText={(text) => onSet({ fillers: asNumber(text) as number })}
        />
      )}
      {entry.part && (own.length > 0 || entry.made_of) && (
        <Select
          label={t("palette.made_of")}
          className="w-44"
          value={entry.made_of ?? ""}
          options={[
            { value: "", label: t("sequence.blank") },
            ...own.map((name) => ({ value: name, label: name })),
          ]}
          onChoose={(made_of) => onSet({ made_of })}
        />
      )}
      {grades && (
        <TextField
          label={t("sequence.graduate")}
          className="w-44 [&_input]:figures"
          inputMode="decimal"
          placeholder={t("sequence.same")}
          value={typedLength(entry.graduate_to, brief.unit ?? "mm")}
          problem={problemAt(problems, `${at}.graduate_to`)}
          onText={(text) => onSet({ graduate_to: text })}
        />
      )}
    </div>
  );
}
