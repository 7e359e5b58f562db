import { useTranslation } from "react-i18next";
import type { Facts, FieldProblem, Unit } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { choicesShown, inTwo } from "./choicesShown";
import { capital } from "../shared/capital";
import { asNumber, asText } from "./draft";
import { lengthRange, typedLength } from "../shared/length";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";
import { problemAt } from "./context";

type Choice = Facts["kinds"][number]["choices"][number];

interface Props {
  choices: readonly Choice[];
  value: Record<string, unknown>;
  /** Dotted path of the value in the brief, for what is wrong with it. */
  at: string;
  problems: readonly FieldProblem[];
  /** The unit that a bare number is read in. */
  unit: Unit;
  onSet: (name: string, value: unknown) => void;
}

/** The choices of a part, closure or construction, asked as it declares them. */
export function ChoiceFields({ choices, value, at, problems, unit, onSet }: Props) {
  const { t } = useTranslation();
  const problemOf = (choice: Choice) => problemAt(problems, `${at}.${choice.name}`, true);
  const { first, more, open } = inTwo(choicesShown(choices, value), value, (choice) =>
    Boolean(problemOf(choice)),
  );
  const fields = (some: readonly Choice[]) => (
    <div className="grid grid-cols-[repeat(auto-fill,minmax(148px,1fr))] items-start gap-x-3 gap-y-2">
      {some.map((choice) => (
        <OneField
          key={choice.name}
          choice={choice}
          typed={value[choice.name]}
          unit={unit}
          problem={problemOf(choice)}
          onSet={(next) => onSet(choice.name, next)}
        />
      ))}
    </div>
  );
  return (
    <div className="space-y-2">
      {fields(first)}
      {more.length > 0 && (
        <details className="group" open={open || undefined}>
          <summary className="flex min-h-[44px] cursor-pointer items-center font-semibold">
            <span aria-hidden="true" className="mr-2 text-accent group-open:hidden">
              +
            </span>
            <span aria-hidden="true" className="mr-2 hidden text-accent group-open:inline">
              −
            </span>
            {t("choices.more", { count: more.length })}
          </summary>
          {fields(more)}
        </details>
      )}
    </div>
  );
}

interface OneProps {
  choice: Choice;
  typed: unknown;
  /** The unit that a bare number is read in. */
  unit: Unit;
  problem: string | undefined;
  onSet: (value: unknown) => void;
}

function OneField({ choice, typed, unit, problem, onSet }: OneProps) {
  const { t } = useTranslation();
  const shown = useUnit();
  const label = capital(choice.says);
  if (choice.type === "option") {
    const labels = choice.labels ?? [];
    return (
      <Select
        label={label}
        value={asText(typed ?? choice.default)}
        options={(choice.options ?? []).map((value, i) => ({ value, label: labels[i] ?? value }))}
        onChoose={(chosen) => onSet(/^\d+$/.test(chosen) ? Number(chosen) : chosen)}
      />
    );
  }
  if (choice.type === "flag") {
    return (
      <label className="flex min-h-[44px] items-center gap-3 self-end leading-tight font-semibold">
        <input
          type="checkbox"
          className="size-6 shrink-0 accent-accent"
          checked={Boolean(typed ?? choice.default)}
          onChange={(event) => onSet(event.target.checked)}
        />
        {label}
      </label>
    );
  }
  const whole = choice.type === "whole" || choice.type === "number";
  const written = (value: unknown) =>
    choice.type === "length" ? typedLength(value, unit) : asText(value);
  const given = choice.default === "" ? "" : written(choice.default);
  return (
    <TextField
      label={label}
      hint={range(choice, unit)}
      suffix={choice.type === "length" && unit !== shown ? unit : undefined}
      title={choice.help || undefined}
      inputMode={choice.type === "size" ? undefined : "decimal"}
      className="[&_input]:figures"
      placeholder={choice.type === "size" || !given ? t("sequence.blank") : given}
      value={written(typed)}
      problem={problem}
      onText={(text) => onSet(whole ? asNumber(text) : text)}
    />
  );
}

function range({ help, low, high, type }: Choice, unit: Unit): string | undefined {
  if (help) return help;
  if (low == null || high == null) return undefined;
  return type === "length" ? lengthRange(low, high, unit) : `${low} – ${high}`;
}
