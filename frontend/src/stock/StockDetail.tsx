import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type Rack, type StockLine } from "../api/client";
import { usePutAway } from "../shared/useArchive";
import { useUnit } from "../shared/useUnit";
import { nearest } from "./gauges";
import { lengthText } from "../shared/length";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";
import { Trial } from "./Trial";
import { StockForm, type StockTyped } from "./StockForm";

const REASONS = ["bought", "counted", "used", "spoiled", "scrapped"] as const;
type Reason = (typeof REASONS)[number];

interface Props {
  stock: StockLine;
  onTake: (rack: Rack) => void;
  onClose: () => void;
}

/** One reel or box: what is left, the scale, gains and uses, and its history. */
export function StockDetail({ stock, onTake, onClose }: Props) {
  const { t } = useTranslation();
  const [changing, setChanging] = useState(false);
  const path = { params: { path: { stock_id: stock.id } } };
  const change = useMutation({
    meta: { shown: true },
    mutationFn: (typed: StockTyped) =>
      ask(api.PUT("/api/stock/{stock_id}", { ...path, body: { stock: typed } })),
    onSuccess: (rack) => {
      onTake(rack);
      setChanging(false);
    },
  });
  const away = usePutAway(onClose);
  const wire = stock.diameter_mm != null;
  return (
    <div className="space-y-4">
      <div className="flex items-start justify-between gap-3">
        <h2 className="min-w-0 text-lead break-words">{stock.name}</h2>
        <Button look="quiet" className="!px-1" onClick={onClose}>
          {t("reels.close")}
        </Button>
      </div>
      <Problem says={stock.problem} />
      <p className="leading-tight">
        {wire ? (
          <Figure mm={stock.amount} places={0} unit className="text-figure font-bold" />
        ) : (
          <span className="figures text-figure font-bold">{stock.amount}</span>
        )}
        <span className="block text-muted">
          {stock.said}
          {stock.mass_g != null && ` · ${stock.mass_g.toFixed(1)} g`}
          {stock.price != null && ` · ${t("reels.price", { price: stock.price.toFixed(2) })}`}
        </span>
      </p>
      {wire && <Weigh stock={stock} onTake={onTake} />}
      {wire && <Calliper stock={stock} />}
      {wire && <Trial stock={stock} onTake={onTake} />}
      <Move stock={stock} onTake={onTake} />
      <section>
        <h3 className="text-base">{t("reels.history")}</h3>
        <ol className="border-t hairline text-small">
          {stock.movements.map((one) => (
            <li
              key={one.id}
              className={`flex justify-between gap-3 border-b hairline py-1 ${one.undone ? "text-muted line-through" : ""}`}
            >
              <span>
                {t(`movement.${one.reason}`)}
                {one.note && <span className="text-muted"> {one.note}</span>}
              </span>
              {wire ? (
                <Figure mm={one.amount} places={1} signed />
              ) : (
                <span className="figures">
                  {one.amount > 0 ? "+ " : "− "}
                  {Math.abs(one.amount)}
                </span>
              )}
            </li>
          ))}
        </ol>
      </section>
      <div className="flex gap-2">
        <Button onClick={() => setChanging(!changing)}>{t("reels.change")}</Button>
        <Button onClick={() => away.mutate({ what: "stock", id: stock.id, name: stock.name })}>
          {t("reels.put_away")}
        </Button>
      </div>
      {changing && (
        <StockForm
          stock={stock}
          says={t("reels.save")}
          busy={change.isPending}
          onSend={(typed, kept) => change.mutate(typed, { onSuccess: kept })}
        />
      )}
      <Problem says={says(change.error)} />
    </div>
  );
}

/** A field that a scale types into: by its button, or as its cable does, text and Enter. */
function Weigh({ stock, onTake }: Omit<Props, "onClose">) {
  const { t } = useTranslation();
  const unit = useUnit();
  const [reading, setReading] = useState("");
  const [doubt, setDoubt] = useState<number | null>(null);
  const path = { params: { path: { stock_id: stock.id } } };
  const weigh = useMutation({
    meta: { shown: true },
    mutationFn: async () => {
      const found = await ask(
        api.POST("/api/stock/{stock_id}/weigh", { ...path, body: { reading, resolution: 0.1 } }),
      );
      setDoubt(found.plus_minus_mm);
      return ask(api.GET("/api/stock"));
    },
    onSuccess: onTake,
  });
  const scale = useMutation({
    mutationFn: () =>
      ask(api.GET("/api/devices/scale", { params: { query: { stock_id: stock.id } } })),
    onSuccess: (line) => setReading(line.text.trim()),
  });
  return (
    <form
      className="border-y hairline py-2"
      onSubmit={(event) => {
        event.preventDefault();
        weigh.mutate();
      }}
    >
      <div className="flex items-end gap-2">
        <TextField
          label={t("reels.on_scale")}
          className="grow [&_input]:figures"
          placeholder={t("reels.grams")}
          value={reading}
          onText={setReading}
        />
        <Button className="!px-2.5 whitespace-nowrap" onClick={() => scale.mutate()}>
          {t("reels.read_scale")}
        </Button>
        <Button type="submit" look="strong" disabled={!reading}>
          {t("reels.set")}
        </Button>
      </div>
      <p className="mt-1 text-small text-muted">
        {doubt === null
          ? t("reels.scale_how", { tare: stock.tare_g })
          : t("reels.scale_doubt", { doubt: `${lengthText(doubt, unit, 0)} ${unit}` })}
      </p>
      <Problem says={says(weigh.error)} />
    </form>
  );
}

/** The wire between the jaws: is it the wire that the reel says? */
function Calliper({ stock }: { stock: StockLine }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const [reading, setReading] = useState("");
  const calliper = useMutation({
    mutationFn: () =>
      ask(api.GET("/api/devices/calliper", { params: { query: { stock_id: stock.id } } })),
    onSuccess: (line) => {
      setReading(line.text.trim());
      sense.mutate(line.text.trim());
    },
  });
  const sense = useMutation({
    meta: { shown: true },
    mutationFn: (size: string) => ask(api.POST("/api/gauges/sense", { body: { size, hole: "" } })),
  });
  const found = sense.data;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        sense.mutate(reading);
      }}
    >
      <div className="flex items-end gap-2">
        <TextField
          label={t("reels.across")}
          className="grow [&_input]:figures"
          placeholder={unit === "mm" ? "0.81 mm" : "0.032 in"}
          value={reading}
          onText={setReading}
        />
        <Button className="!px-2.5 whitespace-nowrap" onClick={() => calliper.mutate()}>
          {t("reels.read_calliper")}
        </Button>
      </div>
      {found && (
        <p className="mt-1 text-small text-muted">{t("gauges.near", nearest(found, unit))}</p>
      )}
      <Problem says={says(sense.error)} />
    </form>
  );
}

function Move({ stock, onTake }: Omit<Props, "onClose">) {
  const { t } = useTranslation();
  const [amount, setAmount] = useState("");
  const [reason, setReason] = useState<Reason>("bought");
  const move = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(
        api.POST("/api/stock/{stock_id}/movements", {
          params: { path: { stock_id: stock.id } },
          body: { amount, reason, note: "" },
        }),
      ),
    onSuccess: (rack) => {
      onTake(rack);
      setAmount("");
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        move.mutate();
      }}
    >
      <div className="flex items-end gap-2">
        <Select
          label={t("reels.movement")}
          className="w-36"
          value={reason}
          options={REASONS.map((value) => ({ value, label: t(`movement.${value}`) }))}
          onChoose={(value) => setReason(value as Reason)}
        />
        <TextField
          label={t(reason === "counted" ? "reels.there_is" : "reels.how_much")}
          className="grow [&_input]:figures"
          inputMode="decimal"
          value={amount}
          onText={setAmount}
        />
        <Button type="submit" disabled={!amount}>
          {t("reels.write")}
        </Button>
      </div>
      <Problem says={says(move.error)} />
    </form>
  );
}

function says(error: Error | null): string | undefined {
  return error instanceof ApiError ? error.details.detail : error?.message;
}
