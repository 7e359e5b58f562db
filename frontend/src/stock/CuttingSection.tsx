import "../locales/work";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Board } from "../api/client";
import { queries } from "../api/queries";
import { money } from "../log/log";
import { CutBoard, totals } from "./CutBoard";
import { Trays } from "./Trays";
import { Button, buttonLook } from "../shared/Button";
import { Figure } from "../shared/Figure";

// More kinds without a price than this are a list to be opened.
const FEW = 3;

/** Several pieces cut together: which, on what, and what has to be bought. */
export function CuttingSection() {
  const { t } = useTranslation();
  const { data: bench } = useQuery(queries.bench());
  const every = (bench?.pieces ?? []).filter((piece) => piece.waits_for === "cut");
  // The soonest due first, as the bench has them; the others come when these are cut.
  const most = bench?.most_on_board ?? 0;
  const waiting = every.slice(0, most);
  const [left, setLeft] = useState<readonly number[]>([]);
  const chosen = waiting.filter((piece) => !left.includes(piece.id)).map((piece) => piece.id);
  const pieces = chosen.join(",");
  const { data: board } = useQuery({ ...queries.board(pieces), enabled: chosen.length > 0 });
  const sum = totals(chosen.length > 0 ? board : undefined);
  const unpriced = board?.unpriced ?? [];
  const short = (chosen.length > 0 && board?.short) || [];
  const labels = useMutation({
    mutationFn: () => ask(api.POST("/api/board/labels", { params: { query: { pieces } } })),
  });
  const link = (path: string) =>
    `/api/board/${path}${path.includes("?") ? "&" : "?"}pieces=${pieces}`;
  return (
    <div className="px-6 py-4">
      <title>{`${t("cutting.title")} · Jam Reel`}</title>
      <header className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        <h1 className="mr-auto text-page">
          {t("cutting.title")}
          <span className="ml-4 text-base font-normal text-muted">
            {t("cutting.count", { count: sum.cuts, pieces: chosen.length })}
          </span>
        </h1>
        <p className="flex items-baseline gap-3 text-muted">
          {t("cutting.scrap")}
          <Figure mm={sum.scrap} unit className="text-figure leading-none font-bold text-ink" />
        </p>
      </header>
      {every.length > waiting.length && (
        <p role="status" className="mb-3 text-muted">
          {t("cutting.left_out", { count: every.length - waiting.length, most })}
        </p>
      )}
      <div className="mb-4 flex flex-wrap items-center gap-2">
        <a
          className={buttonLook("strong")}
          href={link("strip.pdf")}
          target="_blank"
          rel="noreferrer"
        >
          {t("cutting.strips")}
        </a>
        <Button disabled={labels.isPending || chosen.length === 0} onClick={() => labels.mutate()}>
          {t("cutting.labels")}
        </Button>
        <span role="status" className="text-muted">
          {labels.data && t("cutting.printed", { count: labels.data.labels.length })}
        </span>
        <span className="ml-auto text-body text-muted">
          {t("cutting.sums", {
            mass: sum.mass.toFixed(1),
            scrap: sum.scrapG.toFixed(2),
            cost: money(sum.cost + (board?.fetch_cost ?? 0), board?.currency),
          })}
          <Unpriced unpriced={unpriced} />
        </span>
      </div>
      <div className="grid grid-cols-1 gap-7 laptop:grid-cols-[1fr_280px]">
        {chosen.length > 0 ? (
          <div className="space-y-5">
            <CutBoard pieces={pieces} at={0} heading="h2" />
            <Trays pieces={pieces} at={0} heading="h2" />
          </div>
        ) : (
          <p className="text-muted">{t("cutting.none")}</p>
        )}
        <aside className="space-y-5">
          <ToBuy buy={sum.buy} short={short} csv={link("buy.csv")} />
          <section>
            <h2 className="text-lead">{t("cutting.pieces")}</h2>
            <ul className="border-t hairline">
              {waiting.map((piece) => (
                <li key={piece.id} className="border-b hairline">
                  <label className="flex min-h-[44px] items-center gap-3 leading-tight">
                    <input
                      type="checkbox"
                      className="size-6 shrink-0 accent-accent"
                      checked={!left.includes(piece.id)}
                      onChange={(event) =>
                        setLeft(
                          event.target.checked
                            ? left.filter((id) => id !== piece.id)
                            : [...left, piece.id],
                        )
                      }
                    />
                    {piece.name}
                  </label>
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </div>
    </div>
  );
}

/** What has no price, by name; many of them folded. */
function Unpriced({ unpriced }: { unpriced: readonly string[] }) {
  const { t } = useTranslation();
  return (
    <>
      {unpriced.length > 0 && unpriced.length <= FEW && (
        <strong className="block font-semibold text-ink">
          {t("cutting.unpriced", { what: unpriced.join("; ") })}
        </strong>
      )}
      {unpriced.length > FEW && (
        <details className="text-ink">
          <summary className="min-h-[44px] py-2.5 font-semibold underline underline-offset-4">
            {t("cutting.unpriced_many", { count: unpriced.length })}
          </summary>
          <ul className="columns-2 gap-6 pb-2">
            {unpriced.map((what) => (
              <li key={what}>{what}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

interface BuyProps {
  buy: ReturnType<typeof totals>["buy"];
  short: Board["short"];
  csv: string;
}

/** What the rack lacks. */
function ToBuy({ buy, short, csv }: BuyProps) {
  const { t } = useTranslation();
  if (buy.length + short.length === 0) return null;
  return (
    <section>
      <div className="flex items-baseline justify-between">
        <h2 className="text-lead">{t("cutting.buy")}</h2>
        <a
          className="inline-flex min-h-[44px] items-center underline underline-offset-4"
          href={csv}
        >
          {t("cutting.as_csv")}
        </a>
      </div>
      <ul className="border-t hairline">
        {buy.map((group) => (
          <li key={group.label} className="border-b hairline py-1.5 leading-tight">
            <span className="font-semibold">
              {group.buy_count} × <Figure mm={group.buy_each_mm} unit />
            </span>
            <span className="block text-small text-muted">{group.label}</span>
          </li>
        ))}
        {short.map((one) => (
          <li key={one.label + one.size} className="border-b hairline py-1.5 leading-tight">
            <span className="font-semibold">
              <span className="figures">{one.count}</span> × {one.size}
            </span>
            <span className="block text-small text-muted">{one.label}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
