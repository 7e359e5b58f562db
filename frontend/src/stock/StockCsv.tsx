import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask } from "../api/client";
import { Button, buttonLook } from "../shared/Button";
import { Problem } from "../shared/TextField";

/** The rack as a file: out at any time; in when nothing in it is refused. */
export function StockCsv() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const [text, setText] = useState("");
  const send = useMutation({
    mutationFn: (commit: boolean) => ask(api.POST("/api/stock/import", { body: { text, commit } })),
    onSuccess: (done) => {
      if (done.imported) void client.invalidateQueries({ queryKey: ["rack"] });
    },
  });
  const done = send.data;
  return (
    <div className="space-y-3">
      <h2 className="text-lead">{t("reels.csv")}</h2>
      <p className="text-body text-muted">{t("reels.csv_how")}</p>
      <a className={buttonLook("plain")} href="/api/stock.csv">
        {t("reels.csv_get")}
      </a>
      <label className="block font-semibold">
        {t("reels.csv_file")}
        <input
          type="file"
          accept=".csv,text/csv"
          className="mt-1 block min-h-[44px] w-full"
          onChange={(event) => {
            send.reset();
            void event.target.files?.[0]?.text().then(setText);
          }}
        />
      </label>
      <div className="flex gap-2">
        <Button disabled={!text || send.isPending} onClick={() => send.mutate(false)}>
          {t("reels.csv_look")}
        </Button>
        <Button
          look="strong"
          disabled={!done || done.refused.length > 0 || done.imported}
          onClick={() => send.mutate(true)}
        >
          {t("reels.csv_in")}
        </Button>
      </div>
      {done && (
        <p role="status">
          {t(done.imported ? "reels.csv_done" : "reels.csv_would", { count: done.count })}
        </p>
      )}
      {done?.refused.map((one) => (
        <Problem key={one.line} says={t("reels.csv_line", { line: one.line, says: one.says })} />
      ))}
    </div>
  );
}
