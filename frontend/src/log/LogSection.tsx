import "../locales/work";
import { useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useParams } from "react-router";
import type { LogLine } from "../api/client";
import { benchQueries } from "../api/benchQueries";
import { addWords } from "../i18n";
import words from "../locales/en-log.json";
import { byMonth, cameOut } from "./log";
import { Button, buttonLook } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { TextField } from "../shared/TextField";
import { LogEntryPage } from "./LogEntryPage";

addWords(words);

/** The log: every finished piece as it came out, found by any word of it. */
export function LogSection() {
  const { t } = useTranslation();
  const { id } = useParams();
  const [typed, type] = useState("");
  const searched = useDeferredValue(typed.trim());
  const log = useInfiniteQuery(benchQueries.log(searched));
  const entries = log.data?.pages.flatMap((page) => page.entries) ?? [];
  // The newest stands beside the list until another is chosen.
  const shown = id ? Number(id) : entries[0]?.id;
  return (
    <div className="grid grid-cols-1 laptop:grid-cols-[minmax(0,1fr)_400px]">
      <title>{`${t("nav.log")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="mb-1 flex flex-wrap items-end gap-3">
          <h1 className="mr-auto text-page">{t("nav.log")}</h1>
          <TextField
            label={t("log.search")}
            labelHidden
            type="search"
            className="w-80"
            placeholder={t("log.search")}
            value={typed}
            onText={type}
          />
          <a className={buttonLook("plain")} href="/api/log.csv">
            {t("log.csv")}
          </a>
        </div>
        {log.data && entries.length === 0 && (
          <p className="mt-4 max-w-prose">{t(searched ? "log.none" : "log.empty", { searched })}</p>
        )}
        {byMonth(entries).map(({ month, entries: made }) => (
          <section key={month} className="mt-3" aria-labelledby={`log-${month}`}>
            <h2 id={`log-${month}`} className="border-b border-ink pb-0.5 text-lead">
              {new Date(`${month}-15`).toLocaleDateString("en-GB", {
                month: "long",
                year: "numeric",
              })}
            </h2>
            <ul>
              {made.map((one) => (
                <Row key={one.id} entry={one} open={one.id === shown} />
              ))}
            </ul>
          </section>
        ))}
        {log.hasNextPage && (
          <Button
            className="mt-3"
            disabled={log.isFetchingNextPage}
            onClick={() => void log.fetchNextPage()}
          >
            {t("log.more")}
          </Button>
        )}
      </div>
      <aside
        aria-label={t("log.beside")}
        className={`border-b hairline bg-panel px-5 py-4 laptop:order-none ${id ? "order-first" : ""} laptop:min-h-screen laptop:border-b-0 laptop:border-l`}
      >
        {shown ? (
          <LogEntryPage key={shown} id={shown} />
        ) : (
          <p className="text-muted">{t("log.choose")}</p>
        )}
      </aside>
    </div>
  );
}

function Row({ entry, open }: { entry: LogLine; open: boolean }) {
  const { t } = useTranslation();
  const out = cameOut(entry);
  return (
    <li className="border-b hairline">
      <Link
        to={`/log/${entry.id}`}
        aria-current={open ? "true" : undefined}
        className="grid min-h-[54px] grid-cols-[28px_minmax(0,1fr)_auto_auto] items-center gap-x-3 px-1 py-1 leading-tight hover:bg-panel aria-[current]:bg-tint"
      >
        <span className="figures text-right text-body text-muted">
          {Number(entry.finished_on.slice(8))}
        </span>
        <span>
          <span className="block text-lead font-semibold break-words">{entry.name}</span>
          <span className="block text-small text-muted">
            {[entry.wearer || t("piece.nobody"), entry.made_of].filter(Boolean).join(" · ")}
          </span>
        </span>
        {entry.photo && (
          <img
            src={`/api/log/photos/${entry.photo}.jpg`}
            alt=""
            className="size-11 rounded-sm object-cover"
          />
        )}
        <span className="col-start-4 text-right">
          {out ? (
            <>
              <Figure mm={out.made} unit className="text-head font-semibold" />
              <span className="block text-note text-muted">
                <Figure mm={out.off} signed /> {t("log.off")}
              </span>
            </>
          ) : (
            <span className="text-small text-muted">{t("log.not_measured")}</span>
          )}
        </span>
      </Link>
    </li>
  );
}
