import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { TFunction } from "i18next";
import type { Plan, Unit } from "../api/client";
import { usePointed } from "../piece/usePointed";
import { useUnit } from "./useUnit";
import { lengthText } from "./length";
import { Column } from "./Column";
import { Figure } from "./Figure";

type Line = Plan["ledger"][number];

/** The arithmetic as a column: terms with signs, totals ruled off, each line saying why. */
export function Ledger({ plan }: { plan: Plan | null }) {
  const { t } = useTranslation();
  if (!plan) return <p className="text-muted">{t("ledger.waits")}</p>;
  return (
    <div className="space-y-6">
      {groups(plan.ledger).map((lines, i) => (
        <section key={lines[0]?.id}>
          <h2 className="mb-1 text-lead">{heading(lines, i, t)}</h2>
          <ol>
            <Column of={plan.ledger.map((line) => line.value_mm)}>
              {lines.map((line) => (
                <LedgerRow key={line.id} line={line} />
              ))}
            </Column>
          </ol>
        </section>
      ))}
    </div>
  );
}

/** Lines up to and with each total that is no term of another. */
function groups(ledger: readonly Line[]): Line[][] {
  const found: Line[][] = [[]];
  for (const line of ledger) {
    found.at(-1)?.push(line);
    if (line.total && !line.adds_to) found.push([]);
  }
  return found.filter((group) => group.length > 0);
}

/** What a group of lines adds up to. */
function heading(lines: Line[], place: number, t: TFunction): string {
  if (place === 0) return t("ledger.length");
  const last = lines.at(-1);
  if (!last?.total) return t("ledger.besides");
  return t(`ledger.${last.id}`, { defaultValue: t("ledger.adds_to", { what: last.label }) });
}

function LedgerRow({ line }: { line: Line }) {
  const { t } = useTranslation();
  const { lines, point } = usePointed();
  const unit = useUnit();
  const [open, setOpen] = useState(false);
  const grand = line.total && !line.adds_to;
  const weight = line.total ? "font-semibold" : "";
  const rule = grand ? "border-y-4 border-double border-ink" : "border-b hairline";
  return (
    <li className={`${rule} ${lines.includes(line.id) ? "bg-tint" : ""}`}>
      <button
        type="button"
        aria-expanded={open}
        className="block min-h-[44px] w-full px-1 py-1 text-left"
        onClick={() => setOpen(!open)}
        onPointerEnter={() => point([line.id])}
        onPointerLeave={() => point([])}
        onFocus={() => point([line.id])}
        onBlur={() => point([])}
      >
        <span className={`flex items-baseline justify-between gap-3 ${weight}`}>
          <span>{line.label}</span>
          <Figure mm={line.value_mm} places={2} signed={!line.total} className="text-lead" />
        </span>
        <span className="block text-note leading-tight text-muted">{line.reason}</span>
      </button>
      {open && (
        <dl className="grid grid-cols-[auto_1fr] gap-x-3 px-1 pb-2 text-note">
          <dt className="text-muted">{t("ledger.backed")}</dt>
          <dd>{t(`backing.${line.backing.replaceAll(" ", "_")}`)}</dd>
          <dt className="text-muted">{t("ledger.rule")}</dt>
          <dd className="font-mono break-all">{line.rule}</dd>
          {Object.entries(line.inputs ?? {}).map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="text-muted">{t(`inputs.${name}`, { defaultValue: name })}</dt>
              <dd className="figures">
                {typeof value === "number" ? inputText(name, value, unit) : value}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </li>
  );
}

// What a rule is given that is no length.
const PLAIN = new Set(["turns", "share", "count", "runs", "percent", "parameter", "readings"]);

/** A figure that a rule used: a length in the maker's unit, anything else as it is. */
function inputText(name: string, value: number, unit: Unit): string {
  if (PLAIN.has(name) || unit === "mm") return String(Number(value.toFixed(3)));
  return `${lengthText(value, unit)} in`;
}
