import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type Rack, type StockLine } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";
import { addWords } from "../i18n";
import words from "../locales/en-stock.json";

addWords(words);

interface Props {
  stock: StockLine;
  /** What it was wound on, as typed, where that is known. */
  former?: string;
  onTake: (rack: Rack) => void;
}

/** Wound on one diameter, came off at another: what this very wire springs back by. */
export function Trial({ stock, former = "", onTake }: Props) {
  const { t } = useTranslation();
  const unit = useUnit();
  const [typed, setTyped] = useState({ former, came_off: "" });
  const note = useMutation({
    meta: { shown: true },
    mutationFn: (body: typeof typed) => {
      const params = { path: { stock_id: stock.id } };
      return ask(api.POST("/api/stock/{stock_id}/trial", { params, body }));
    },
    onSuccess: (rack) => {
      setTyped({ former, came_off: "" });
      onTake(rack);
    },
  });
  return (
    <form
      className="border-y hairline py-2"
      onSubmit={(event) => {
        event.preventDefault();
        note.mutate(typed);
      }}
    >
      <div className="flex items-end gap-2">
        {(["former", "came_off"] as const).map((name) => (
          <TextField
            key={name}
            label={t(`reels.trial.${name}`)}
            className="grow [&_input]:figures"
            inputMode="decimal"
            suffix={unit}
            value={typed[name]}
            onText={(text) => setTyped({ ...typed, [name]: text })}
          />
        ))}
        <Button type="submit" look="strong" disabled={!typed.former || !typed.came_off}>
          {t("reels.trial.note")}
        </Button>
      </div>
      <p className="mt-1 text-small text-muted">
        {stock.trial ? (
          <>
            {t("reels.trial.found", { mpa: Math.round(stock.trial.yield_mpa) })}{" "}
            <Figure mm={stock.trial.former} /> → <Figure mm={stock.trial.came_off} />{" "}
            <Button onClick={() => note.mutate({ former: "", came_off: "" })}>
              {t("reels.trial.forget")}
            </Button>
          </>
        ) : (
          t("reels.trial.how")
        )}
      </p>
      <Problem says={note.error instanceof ApiError ? note.error.details.detail : undefined} />
    </form>
  );
}
