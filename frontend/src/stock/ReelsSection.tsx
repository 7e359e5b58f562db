import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ApiError, ask, type Rack, type StockLine } from "../api/client";
import { queries } from "../api/queries";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem } from "../shared/TextField";
import { GaugeSense } from "./GaugeSense";
import { StockCsv } from "./StockCsv";
import { StockDetail } from "./StockDetail";
import { StockForm, type StockTyped } from "./StockForm";
import { addWords } from "../i18n";
import words from "../locales/en-stock.json";

addWords(words);

const KINDS = ["reel", "length", "offcut", "bead", "finding"] as const;
const WIRES: readonly string[] = ["reel", "length", "offcut"];

/** The rack: what there is, what is low, and what the words on it mean. */
export function ReelsSection() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const { data: rack } = useQuery(queries.rack());
  const [open, setOpen] = useState<number | "new" | "csv" | null>(null);
  const take = (fresh: Rack) => {
    client.setQueryData(["rack"], fresh);
    void client.invalidateQueries({ queryKey: ["board"] });
  };
  const add = useMutation({
    meta: { shown: true },
    mutationFn: (stock: StockTyped) => ask(api.POST("/api/stock", { body: { stock } })),
    onSuccess: (fresh) => {
      take(fresh);
      setOpen(null);
    },
  });
  if (!rack) return <p className="p-8 text-muted">{t("loading")}</p>;
  const chosen = rack.stock.find((one) => one.id === open);
  const low = rack.stock.filter((one) => one.is_low);
  const wire = rack.stock.filter((one) => WIRES.includes(one.kind));
  return (
    <div className="grid grid-cols-1 laptop:grid-cols-[minmax(0,1fr)_380px]">
      <title>{`${t("nav.reels")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="mb-2 flex flex-wrap items-center gap-3">
          <h1 className="mr-auto text-page">
            {t("nav.reels")}
            <span className="ml-4 text-base font-normal text-muted">
              {t("reels.in_all")}{" "}
              <Figure mm={wire.reduce((n, s) => n + s.amount, 0)} places={0} unit />
              {low.length > 0 && ` · ${t("reels.low", { count: low.length })}`}
            </span>
          </h1>
          <Link
            className="inline-flex min-h-[44px] items-center underline underline-offset-4"
            to="/cutting"
          >
            {t("board.batch")}
          </Link>
          <Button onClick={() => setOpen("csv")}>{t("reels.csv")}</Button>
          <Button look="strong" onClick={() => setOpen("new")}>
            {t("reels.add")}
          </Button>
        </div>
        {rack.two_diameters.map((says) => (
          <p key={says} className="mb-1 border-l-4 border-ink pl-3 font-medium">
            {says}
          </p>
        ))}
        {rack.stock.length === 0 && <p className="max-w-prose">{t("reels.empty")}</p>}
        {KINDS.map((kind) => (
          <Shelf
            key={kind}
            kind={kind}
            stock={rack.stock.filter((one) => one.kind === kind)}
            open={chosen?.id}
            onOpen={setOpen}
          />
        ))}
      </div>
      <aside
        aria-label={t("reels.beside")}
        className={`border-b hairline bg-panel px-5 py-4 laptop:order-none ${open === null ? "" : "order-first"} laptop:min-h-screen laptop:border-b-0 laptop:border-l`}
      >
        {chosen ? (
          <StockDetail key={chosen.id} stock={chosen} onTake={take} onClose={() => setOpen(null)} />
        ) : open === "new" ? (
          <>
            <h2 className="mb-2 text-lead">{t("reels.add")}</h2>
            <StockForm
              says={t("reels.put_on")}
              busy={add.isPending}
              onSend={(typed, kept) => add.mutate(typed, { onSuccess: kept })}
            />
            <Problem says={add.error instanceof ApiError ? add.error.details.detail : undefined} />
          </>
        ) : open === "csv" ? (
          <StockCsv />
        ) : (
          <GaugeSense />
        )}
      </aside>
    </div>
  );
}

interface ShelfProps {
  kind: string;
  stock: readonly StockLine[];
  open: number | undefined;
  onOpen: (id: number) => void;
}

function Shelf({ kind, stock, open, onOpen }: ShelfProps) {
  const { t } = useTranslation();
  const metals = useQuery(queries.facts()).data?.metals ?? [];
  const colours = Object.fromEntries(metals.map((metal) => [metal.id, metal.colour]));
  if (stock.length === 0) return null;
  const wire = WIRES.includes(kind);
  return (
    <section className="mt-3" aria-labelledby={`shelf-${kind}`}>
      <h2 id={`shelf-${kind}`} className="border-b border-ink pb-0.5 text-lead">
        {t(`stock_kinds.${kind}`)}
      </h2>
      <ul>
        {stock.map((one) => (
          <li key={one.id} className="border-b hairline">
            <button
              type="button"
              aria-pressed={open === one.id}
              className="grid min-h-[46px] w-full grid-cols-[18px_minmax(0,1fr)_minmax(0,312px)_108px] items-center gap-3 px-1 text-left leading-tight hover:bg-panel aria-pressed:bg-tint"
              onClick={() => onOpen(one.id)}
            >
              <svg width="18" height="18" aria-hidden="true">
                <circle cx="9" cy="9" r="7" fill={colours[metalOf(one)] ?? "none"} />
              </svg>
              <span className="font-semibold break-words">
                {one.name}
                {one.is_low && (
                  <span className="ml-2 rounded-sm bg-ink px-1.5 text-note leading-5 text-on-ink">
                    {t("reels.is_low")}
                  </span>
                )}
              </span>
              <span className="text-small text-muted">
                {one.problem || (wire ? <Words stock={one} /> : <Bead stock={one} />)}
              </span>
              <span className="text-right">
                {wire ? (
                  <Figure mm={one.amount} places={0} unit className="text-head font-semibold" />
                ) : (
                  <span className="figures text-head font-semibold">{one.amount}</span>
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function metalOf(stock: StockLine): string {
  return stock.wire.metal ?? "";
}

/** What a wire is called everywhere: millimetres, inches, and the gauge nearest in each system. */
function Words({ stock }: { stock: StockLine }) {
  const d = stock.diameter_mm ?? 0;
  const near = (gauge: StockLine["awg"]) =>
    gauge && `${Math.abs(gauge.off_mm) > 0.011 ? "≈" : ""}${gauge.number} ${gauge.system}`;
  return (
    <span className="figures text-note">
      {(stock.awg
        ? [`${d.toFixed(2)} mm`, `${(d / 25.4).toFixed(3)} in`, near(stock.awg), near(stock.swg)]
        : [stock.said]
      )
        .filter(Boolean)
        .join(" · ")}
    </span>
  );
}

function Bead({ stock }: { stock: StockLine }) {
  const { t } = useTranslation();
  return (
    <span className="figures">
      {stock.size_mm != null && `${stock.size_mm} mm`}
      {stock.hole_mm != null && ` · ${t("reels.hole")} ${stock.hole_mm} mm`}
    </span>
  );
}
