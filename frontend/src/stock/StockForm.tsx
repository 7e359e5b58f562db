import { useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import type { StockLine, Unit } from "../api/client";
import { queries } from "../api/queries";
import { useKept } from "../shared/useKept";
import { useUnit } from "../shared/useUnit";
import { asText } from "../piece/draft";
import { typedLength } from "../shared/length";
import { SectionFields } from "../measures/SectionFields";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";

/** Stock as typed; the server reads units and gauges. */
export type StockTyped = Record<string, unknown>;

const KINDS = ["reel", "length", "offcut", "bead", "finding"];
const TEMPERS = ["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"];

interface Props {
  stock?: StockLine;
  says: string;
  busy: boolean;
  /** Takes what was typed; `kept` is called once it is on the rack. */
  onSend: (stock: StockTyped, kept: () => void) => void;
}

function isWire(kind: string): boolean {
  return ["reel", "length", "offcut"].includes(kind);
}

/** What is known of something on the rack. */
export function StockForm({ stock, says, busy, onSend }: Props) {
  const { t } = useTranslation();
  const metals = useQuery(queries.facts()).data?.metals ?? [];
  const unit = useUnit();
  const draft = useKept<StockTyped>(`stock.${stock?.id ?? "new"}`, () => before(stock, unit));
  const typed = draft.value;
  const section = (typed.section ?? null) as Record<string, unknown> | null;
  const set = (name: string, value: unknown) => draft.change({ ...typed, [name]: value });
  const kind = asText(typed.kind);
  const wire = isWire(kind);
  const field = (name: string, hint?: string) => (
    <TextField
      label={t(`stock.${name}`)}
      hint={hint}
      className={name === "name" ? "col-span-2" : "[&_input]:figures"}
      value={asText(typed[name])}
      onText={(text) => set(name, text)}
    />
  );
  return (
    <form
      className="grid grid-cols-2 items-start gap-x-3 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        const { size, metal, temper, ...rest }: StockTyped = { ...typed, section: undefined };
        // Of wire that is not round its section says all; the size then counts for nothing.
        const of = section ? { size: "1 mm", section } : { size };
        const stands = wire ? { ...rest, wire: { ...of, metal, temper } } : { ...rest, size };
        onSend(stands, draft.forget);
      }}
    >
      <Select
        label={t("stock.kind")}
        className="col-span-2"
        value={kind}
        options={KINDS.map((value) => ({ value, label: t(`stock_kind.${value}`) }))}
        onChoose={(value) => set("kind", value)}
      />
      {wire && (
        <>
          <SectionFields unit={unit} section={section} onSection={(next) => set("section", next)} />
          {!section && field("size")}
          <Select
            label={t("make_up.metal")}
            value={asText(typed.metal)}
            options={metals.map((one) => ({ value: one.id, label: one.name }))}
            onChoose={(value) => set("metal", value)}
          />
          <Select
            label={t("make_up.temper")}
            value={asText(typed.temper)}
            options={TEMPERS.map((value) => ({ value, label: t(`temper.${value}`) }))}
            onChoose={(value) => set("temper", value)}
          />
        </>
      )}
      {!stock && field(wire ? "amount" : "count")}
      {kind === "reel" && field("tare")}
      {!wire && field("size")}
      {kind === "bead" && field("hole")}
      {field(wire ? "price" : "price_each")}
      {field("low")}
      {field("name", t("stock.name_hint"))}
      <Button type="submit" look="strong" className="col-span-2" disabled={busy}>
        {says}
      </Button>
    </form>
  );
}

function before(stock: StockLine | undefined, unit: Unit): StockTyped {
  if (!stock) return { kind: "reel", metal: "copper", temper: "half_hard" };
  const wire = stock.wire;
  return {
    kind: stock.kind,
    name: stock.name,
    size: wire.size ?? typedLength(stock.size_mm, unit),
    metal: wire.metal ?? "copper",
    temper: wire.temper ?? "half_hard",
    section: wire.section ?? null,
    tare: stock.tare_g ? asText(stock.tare_g) : "",
    price: asText(stock.price),
    low: stock.low ? (isWire(stock.kind) ? typedLength(stock.low, unit) : `${stock.low}`) : "",
    hole: typedLength(stock.hole_mm, unit),
  };
}
