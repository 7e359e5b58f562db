import type { ReactNode } from "react";
import { useTranslation } from "react-i18next";
import type { Facts, FieldProblem, Unit } from "../../api/client";
import { asNumber, asText } from "../draft";
import { countOf, oneMore, shifted, type Bead } from "../beads";
import { capital } from "../../shared/capital";
import { typedLength } from "../../shared/length";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem, TextField } from "../../shared/TextField";
import { problemAt } from "../context";

interface Props {
  label: string;
  beads: readonly Bead[];
  facts: Facts;
  at: string;
  problems: readonly FieldProblem[];
  /** The unit that a bare number is read in. */
  unit: Unit;
  /** Whether the list may have no bead at all. */
  optional?: boolean;
  onBeads: (beads: Bead[]) => void;
}

/** Beads on one wire in order: sizes, stuffs and holes each. */
export function BeadList({ label, beads, facts, at, problems, unit, optional, onBeads }: Props) {
  const { t } = useTranslation();
  return (
    <section aria-label={label} className="space-y-1">
      <h3 className="text-body">
        {label} <span className="figures text-muted">{countOf(beads)}</span>
      </h3>
      <ol className="border-t hairline">
        {beads.map((bead, i) => (
          <li key={i} className="space-y-1 border-b hairline py-1.5">
            <OneBead
              bead={bead}
              facts={facts}
              at={`${at}.${i}`}
              problems={problems}
              unit={unit}
              onBead={(next) => onBeads(beads.map((old, n) => (n === i ? next : old)))}
            >
              <Button
                look="quiet"
                className="!px-2"
                aria-label={t("beads.up", { n: i + 1 })}
                disabled={i === 0}
                onClick={() => onBeads(shifted(beads, i, -1))}
              >
                ↑
              </Button>
              <Button
                look="quiet"
                className="!px-2"
                aria-label={t("beads.drop", { n: i + 1 })}
                disabled={!optional && beads.length < 2}
                onClick={() => onBeads(beads.filter((_, n) => n !== i))}
              >
                ×
              </Button>
            </OneBead>
          </li>
        ))}
      </ol>
      <Problem says={problemAt(problems, at)} />
      <Button onClick={() => onBeads(oneMore(beads))}>{t("beads.add")}</Button>
    </section>
  );
}

interface OneProps extends Pick<Props, "facts" | "at" | "problems" | "unit"> {
  bead: Bead;
  onBead: (bead: Bead) => void;
  children: ReactNode;
}

/** Its figures in one row; what it is made of, and what is done with it, in the next. */
function OneBead({ bead, facts, at, problems, unit, onBead, children }: OneProps) {
  const { t } = useTranslation();
  const write = (type: string, value: unknown) =>
    type === "length" ? typedLength(value, unit) : asText(value);
  const set = (name: string, value: unknown) => onBead({ ...bead, [name]: value });
  return (
    <>
      <div className="grid grid-cols-4 items-end gap-2">
        {facts.beads
          .filter((choice) => choice.type !== "option")
          .map((choice) => (
            <TextField
              key={choice.name}
              label={t(`beads.short.${choice.name}`)}
              className="[&_input]:figures [&_label]:text-small [&_label]:font-normal"
              inputMode="decimal"
              placeholder={write(choice.type, choice.default) || "="}
              value={write(choice.type, bead[choice.name])}
              problem={problemAt(problems, `${at}.${choice.name}`)}
              onText={(text) => set(choice.name, choice.type === "length" ? text : asNumber(text))}
            />
          ))}
      </div>
      <div className="grid grid-cols-[1fr_1fr_auto_auto] items-end gap-2">
        {facts.beads
          .filter((choice) => choice.type === "option")
          .map((choice) => (
            <Select
              key={choice.name}
              label={capital(choice.says)}
              labelHidden
              value={asText(bead[choice.name] ?? choice.default)}
              options={(choice.options ?? []).map((value, i) => ({
                value,
                label: choice.labels?.[i] ?? value,
              }))}
              onChoose={(value) => set(choice.name, value)}
            />
          ))}
        {children}
      </div>
    </>
  );
}
