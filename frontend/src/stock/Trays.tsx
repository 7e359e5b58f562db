import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Fetch, type Piece, type Plan } from "../api/client";
import { queries } from "../api/queries";
import { money } from "../log/log";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { Problem } from "../shared/TextField";

interface Tick {
  piece_id: number;
  key: string;
  ticked: boolean;
  stock_id?: number | null;
}

interface Props {
  /** As for the cut board, whose answer this shows another part of. */
  pieces: string;
  at: number;
  heading?: "h2" | "h3";
  /** The one piece whose taken beads can be put back here. */
  piece?: Piece;
  plan?: Plan | null;
  onTaken?: (piece: Piece) => void;
}

/** Beads and findings to take out of their trays; taking them moves the stock. */
export function Trays({ pieces, at, heading: Heading = "h3", piece, plan, onTaken }: Props) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const { data: board } = useQuery(queries.board(pieces, at));
  const again = () => {
    for (const key of ["board", "rack", "bench"])
      void client.invalidateQueries({ queryKey: [key] });
  };
  const tick = useMutation({
    meta: { shown: true },
    mutationFn: ({ piece_id, ...body }: Tick) =>
      ask(
        api.POST("/api/pieces/{piece_id}/ticks", {
          params: { path: { piece_id } },
          body: { kind: "need", actual: "", ...body },
        }),
      ),
    onSuccess: (changed) => {
      onTaken?.(changed);
      again();
    },
    onError: again,
  });
  const back = useMutation({
    meta: { shown: true },
    mutationFn: ({ piece_id, key }: { piece_id: number; key: string }) =>
      ask(
        api.POST("/api/pieces/{piece_id}/settle", {
          params: { path: { piece_id } },
          body: { key, way: "put_back", to: "" },
        }),
      ),
    onSuccess: (changed) => {
      onTaken?.(changed);
      again();
    },
    onError: again,
  });
  const fetched = piece?.standing.needs ?? [];
  const taken = (plan?.needs ?? []).filter((need) =>
    fetched.some((one) => need.shares.some((share) => one.key === keyOf(need, share.entry))),
  );
  const over = fetched.filter((one) => one.verdict === "fewer" || one.verdict === "not_needed");
  const fetch = board?.fetch ?? [];
  if (fetch.length + taken.length + over.length === 0) return null;
  return (
    <section data-drawn="trays">
      <Heading className="flex flex-wrap items-baseline gap-x-4 border-b border-ink pb-0.5 text-lead">
        {t("trays.title")}
        {board && board.fetch_cost > 0 && (
          <span className="text-small font-normal text-muted">
            {t("trays.cost", { cost: money(board.fetch_cost, board.currency) })}
          </span>
        )}
      </Heading>
      <ul>
        {fetch.map((one) => (
          <ToFetch
            key={`${one.piece_id}/${one.key}`}
            one={one}
            many={(board?.pieces.length ?? 0) > 1}
            busy={tick.isPending}
            onTake={(stock_id) =>
              tick.mutate({ piece_id: one.piece_id, key: one.key, ticked: true, stock_id })
            }
          />
        ))}
        {piece &&
          taken.map((need) => (
            <li
              key={need.id}
              className="flex flex-wrap items-center gap-3 border-b hairline py-1.5 text-muted"
            >
              <span className="mr-auto line-through">
                {need.quantity} × {need.size}, {need.label}
              </span>
              <Button
                disabled={tick.isPending}
                onClick={() => tick.mutate({ piece_id: piece.id, key: need.id, ticked: false })}
              >
                {t("trays.put_back")}
              </Button>
            </li>
          ))}
        {piece &&
          over.map((one) => (
            <li
              key={one.key}
              className="flex flex-wrap items-center gap-3 border-b hairline border-l-4 border-l-ink py-1.5 pl-3"
            >
              <span className="mr-auto">
                {t(one.verdict === "fewer" ? "trays.too_many" : "trays.not_needed", {
                  count: one.by,
                  what: one.says,
                })}
              </span>
              <Button
                disabled={back.isPending}
                onClick={() => back.mutate({ piece_id: piece.id, key: one.key })}
              >
                {t("trays.put_back")}
              </Button>
            </li>
          ))}
      </ul>
      <Problem says={tick.error?.message ?? back.error?.message} />
    </section>
  );
}

/** The name under which one share of a need is fetched. */
function keyOf(need: NonNullable<Plan["needs"]>[number], entry: string): string {
  return `${entry}/${need.id.slice(need.id.indexOf("/") + 1)}`;
}

interface RowProps {
  one: Fetch;
  many: boolean;
  busy: boolean;
  onTake: (stock: number | null) => void;
}

function ToFetch({ one, many, busy, onTake }: RowProps) {
  const { t } = useTranslation();
  const fitting = one.trays.find((tray) => tray.fits && tray.amount >= one.quantity);
  const [picked, setPicked] = useState<string | null>(null);
  const tray = picked ?? String(fitting?.stock_id ?? "");
  return (
    <li className="flex flex-wrap items-center gap-3 border-b hairline py-1.5">
      <span className="mr-auto leading-tight">
        <span className="figures text-head font-semibold">{one.quantity}</span> × {one.size},{" "}
        {one.label}
        {many && <span className="block text-small text-muted">{one.piece}</span>}
      </span>
      <Select
        label={t("trays.from", { what: one.size })}
        labelHidden
        className="w-64"
        value={tray}
        options={[
          { value: "", label: t("trays.elsewhere") },
          ...one.trays.map((each) => ({
            value: String(each.stock_id),
            label: t("trays.tray", { name: each.name, count: Math.round(each.amount) }),
          })),
        ]}
        onChoose={setPicked}
      />
      <Button disabled={busy} onClick={() => onTake(tray ? Number(tray) : null)}>
        {t("trays.take")}
      </Button>
    </li>
  );
}
