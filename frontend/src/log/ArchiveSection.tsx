import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ask, type Away } from "../api/client";
import { queries } from "../api/queries";
import { Button } from "../shared/Button";

const WHATS = ["piece", "wearer", "stock", "tool", "entry"] as const;

/** What was put away: brought back with a press, deleted for good after a question. */
export function ArchiveSection() {
  const { t } = useTranslation();
  const { data } = useQuery(queries.archive());
  const things = data?.things ?? [];
  return (
    <div className="max-w-4xl px-6 py-4">
      <title>{`${t("archive.title")} · Jam Reel`}</title>
      <h1 className="text-page">{t("archive.title")}</h1>
      <p className="mb-3 text-muted">{t("archive.how")}</p>
      {data && things.length === 0 && <p>{t("archive.empty")}</p>}
      {WHATS.map((what) => (
        <Things key={what} what={what} things={things.filter((one) => one.what === what)} />
      ))}
    </div>
  );
}

function Things({ what, things }: { what: Away["what"]; things: Away[] }) {
  const { t } = useTranslation();
  if (things.length === 0) return null;
  return (
    <section className="mt-4" aria-labelledby={`away-${what}`}>
      <h2 id={`away-${what}`} className="border-b border-ink pb-0.5 text-lead">
        {t(`archive.what.${what}`)}
      </h2>
      <ul>
        {things.map((one) => (
          <Row key={one.id} thing={one} />
        ))}
      </ul>
    </section>
  );
}

function Row({ thing }: { thing: Away }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const { what, id } = thing;
  const [confirming, setConfirming] = useState(false);
  const sure = useId();
  const done = { onSuccess: () => client.invalidateQueries() };
  const back = useMutation({
    mutationFn: () => ask(api.POST("/api/archive/back", { body: { what, id } })),
    ...done,
  });
  const drop = useMutation({
    mutationFn: () => ask(api.POST("/api/archive/delete", { body: { what, id } })),
    ...done,
  });
  return (
    <li className="flex flex-wrap items-center gap-3 border-b hairline py-1.5">
      <span className="mr-auto min-w-0">
        <span className="block font-semibold break-words">{thing.name}</span>
        <span className="block text-small text-muted">
          {t("archive.on", {
            when: new Date(thing.put_away_at).toLocaleDateString("en-GB", {
              day: "numeric",
              month: "long",
              year: "numeric",
            }),
          })}
        </span>
      </span>
      <Button disabled={back.isPending} onClick={() => back.mutate()}>
        {t("archive.back")}
      </Button>
      {!confirming && (
        <Button look="quiet" disabled={drop.isPending} onClick={() => setConfirming(true)}>
          {t("archive.delete")}
        </Button>
      )}
      {confirming && (
        <div
          role="alertdialog"
          aria-labelledby={sure}
          className="w-full border-2 border-ink bg-panel p-4"
        >
          <h3 id={sure} className="text-lead">
            {t("archive.sure", { name: thing.name })}
          </h3>
          <p className="mt-1 mb-3">
            {thing.goes} {t("archive.no_way_back")}
          </p>
          <div className="flex flex-wrap gap-3">
            <Button onClick={() => setConfirming(false)}>{t("archive.keep")}</Button>
            <Button look="strong" onClick={() => drop.mutate()}>
              {t("archive.delete")}
            </Button>
          </div>
        </div>
      )}
    </li>
  );
}
