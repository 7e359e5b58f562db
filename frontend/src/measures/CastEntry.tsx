import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState, type ReactNode } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import { api, ask, type Reading, type Wearer } from "../api/client";
import { queries } from "../api/queries";
import { useKept } from "../shared/useKept";
import { asText } from "../piece/draft";
import { fromOneField, inOneField } from "./readings";
import { Button } from "../shared/Button";
import { Problem } from "../shared/TextField";
import { addWords } from "../i18n";
import words from "../locales/en-cast.json";

addWords(words);

const FIRST_SITES = ["wrist_girth", "hand_pass_girth", "neck_base_girth", "head_girth"];
const BLANK_ROWS = 4;

interface Row {
  name: string;
  part: string;
  /** What stands in the field of each site. */
  values: Record<string, string>;
}

/** A whole cast on one screen: a row a wearer, a column a site; and CSV in and out. */
export function CastEntry() {
  const { data: wearers } = useQuery(queries.wearers());
  const { t } = useTranslation();
  if (!wearers) return <p className="p-8 text-muted">{t("loading")}</p>;
  return (
    <div className="space-y-8 px-6 py-4">
      <title>{`${t("cast.title")} · Jam Reel`}</title>
      <CastTable wearers={wearers} />
      <CsvExchange />
    </div>
  );
}

function rowOf(wearer: Wearer): Row {
  const values = Object.fromEntries(
    Object.entries(wearer.measures).map(([site, { readings }]) => [
      site,
      inOneField(readings ?? []),
    ]),
  );
  return { name: wearer.name, part: wearer.part ?? "", values };
}

interface RowProps {
  row: Row;
  /** Which of the new rows it is; none for a wearer who is there. */
  n: number | undefined;
  sites: readonly string[];
  isWrong: (site: string) => boolean;
  kept: (site: string) => readonly Reading[];
  onChange: (part: Partial<Row>) => void;
}

/** One wearer: a name, and a field a site. */
function CastRow({ row, n, sites, isWrong, kept, onChange }: RowProps) {
  const { t } = useTranslation();
  const field = "field min-w-24 px-2";
  return (
    <tr>
      <th scope="row" className="pr-2 pb-1 text-left font-normal">
        {n === undefined ? (
          <span className="block min-w-44">
            <span className="font-semibold">{row.name}</span>{" "}
            <span className="text-small text-muted">{row.part}</span>
          </span>
        ) : (
          <input
            className={`${field} w-44`}
            aria-label={t("cast.new_name", { n })}
            placeholder={t("wearers.new_name")}
            value={row.name}
            onChange={(event) => onChange({ name: event.target.value })}
          />
        )}
      </th>
      {sites.map((site) => (
        <td key={site} className="pr-2 pb-1 align-top">
          <input
            className={`${field} figures text-right`}
            aria-label={`${row.name || t("wearers.new_name")}, ${t(`site.${site}`)}`}
            aria-invalid={isWrong(site) ? true : undefined}
            inputMode="decimal"
            value={row.values[site] ?? ""}
            onChange={(event) =>
              onChange({ values: { ...row.values, [site]: event.target.value } })
            }
          />
          <MannerLine readings={kept(site)} />
        </td>
      ))}
    </tr>
  );
}

function CastTable({ wearers }: { wearers: Wearer[] }) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const all = useQuery(queries.facts()).data?.sites ?? [];
  const blank = (): Row => ({ name: "", part: "", values: {} });
  const before = wearers.map(rowOf);
  const typed = useKept("cast", () => ({
    sites: FIRST_SITES,
    rows: [...before, ...Array.from({ length: BLANK_ROWS }, blank)],
  }));
  const { sites, rows } = typed.value;
  const setSites = (next: string[]) => typed.change({ sites: next, rows });
  const setRows = (next: Row[]) => typed.change({ sites, rows: next });
  const change = (index: number, part: Partial<Row>) =>
    setRows(rows.map((row, i) => (i === index ? { ...row, ...part } : row)));
  const kept = (i: number, site: string) => wearers[i]?.measures?.[site]?.readings ?? [];
  const cells = changedCells(rows, before, sites, all, kept);
  const send = useMutation({
    meta: { shown: true },
    mutationFn: (commit: boolean) =>
      ask(
        api.POST("/api/cast", {
          body: {
            commit,
            cells: cells.map((cell) => ({
              ...cell,
              reading: cell.reading,
            })),
          },
        }),
      ),
    onSuccess: (done) => {
      if (done.imported) typed.forget();
      if (done.imported) void client.invalidateQueries({ queryKey: ["wearers"] });
    },
  });
  const wrong = new Map(send.data?.refused.map((r) => [cellKey(cells[r.line]), r.says]));
  return (
    <section>
      <header className="mb-3 flex flex-wrap items-center gap-3">
        <h1 className="mr-auto text-page">{t("cast.title")}</h1>
        <label className="flex items-center gap-2">
          {t("cast.add_site")}
          <select
            className="field w-52"
            value=""
            onChange={(event) => setSites([...sites, event.target.value])}
          >
            <option value="">–</option>
            {all
              .filter((site) => !sites.includes(site.id))
              .map((site) => (
                <option key={site.id} value={site.id}>
                  {t(`site.${site.id}`)}
                </option>
              ))}
          </select>
        </label>
        <span role="status" className="text-muted">
          {send.data?.imported && t("cast.kept", { count: send.data.readings })}
        </span>
        <Button
          look="strong"
          disabled={cells.length === 0 || send.isPending}
          onClick={() => send.mutate(true)}
        >
          {t("cast.keep")}
        </Button>
      </header>
      <p className="mb-2 text-muted">{t("cast.how")}</p>
      <div className="overflow-x-auto">
        <table>
          <thead className="text-left text-small text-muted">
            <tr>
              <th scope="col" className="pr-2 font-normal">
                {t("wearers.name")}
              </th>
              {sites.map((site) => (
                <th key={site} scope="col" className="pr-2 font-normal">
                  {t(`site.${site}`)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <CastRow
                key={i}
                row={row}
                n={i < before.length ? undefined : i - before.length + 1}
                sites={sites}
                isWrong={(site) => wrong.has(`${row.name}/${site}`)}
                kept={(site) => kept(i, site)}
                onChange={(part) => change(i, part)}
              />
            ))}
          </tbody>
        </table>
      </div>
      {send.data?.refused.map((r) => (
        <Problem key={r.line + r.says} says={nameIt(cells[r.line]?.name, r.says)} />
      ))}
    </section>
  );
}

interface Cell {
  name: string;
  part: string;
  site: string;
  reading: Reading;
}

/** How the readings of a site were taken, where that is not by tape. */
function MannerLine({ readings }: { readings: readonly Reading[] }) {
  const { t } = useTranslation();
  const first = readings[0];
  if (!first?.method || first.method === "tape" || first.method === "calliper") return null;
  const said = [t(`method.${first.method}`), asText(first.thickness)].filter(Boolean);
  return <span className="block text-right text-note text-muted">{said.join(" ")}</span>;
}

function cellKey(cell: Cell | undefined): string {
  return cell ? `${cell.name}/${cell.site}` : "";
}

function nameIt(name: string | undefined, says: string): string {
  return name ? `${name}: ${says}` : says;
}

/** The cells that were changed, a reading each: several in one cell are parted by a slash. */
function changedCells(
  rows: Row[],
  before: Row[],
  sites: string[],
  all: { id: string; kind: string }[],
  kept: (row: number, site: string) => Reading[],
): Cell[] {
  const now = new Date().toISOString();
  return rows.flatMap((row, i) =>
    sites.flatMap((site) => {
      const typed = (row.values[site] ?? "").trim();
      if (!row.name.trim() || typed === "" || typed === before[i]?.values[site]) return [];
      const kind = all.find((one) => one.id === site)?.kind;
      return fromOneField(typed, kept(i, site), kind, now).map((reading) => ({
        name: row.name.trim(),
        part: row.part,
        site,
        reading,
      }));
    }),
  );
}

/** Measures as CSV: out, and in with a look before anything is kept. */
function CsvExchange() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const [text, setText] = useState("");
  const [name, setName] = useState("");
  const send = useMutation({
    mutationFn: (commit: boolean) => ask(api.POST("/api/measures", { body: { text, commit } })),
    onSuccess: (done) => {
      if (done.imported) void client.invalidateQueries({ queryKey: ["wearers"] });
    },
  });
  const look = send.data;
  return (
    <section className="max-w-3xl">
      <h2 className="text-lead">{t("cast.csv")}</h2>
      <p className="mb-2 text-muted">{t("cast.csv_how")}</p>
      <div className="flex flex-wrap items-center gap-3">
        <a className="min-h-[44px] py-2.5 underline underline-offset-4" href="/api/measures.csv">
          {t("cast.export")}
        </a>
        <label className="flex items-center gap-2">
          {t("cast.file")}
          <input
            type="file"
            accept=".csv,text/csv"
            className="min-h-[44px] py-2"
            onChange={async (event) => {
              const input = event.target;
              const file = input.files?.[0];
              if (!file) return;
              setText(await file.text());
              setName(file.name);
              send.reset();
              // Emptied, so that the same file, mended, can be chosen again.
              input.value = "";
            }}
          />
        </label>
        <span className="text-muted">{name}</span>
        <Button disabled={text === "" || send.isPending} onClick={() => send.mutate(false)}>
          {t("cast.look")}
        </Button>
      </div>
      {look && (
        <div className="mt-3 space-y-2" role="status">
          <p>
            {t(look.imported ? "cast.imported" : "cast.would", {
              readings: look.readings,
              wearers: look.names.length,
              fresh: look.new_names.length,
            })}
          </p>
          {look.refused.map((r) => (
            <Problem
              key={`${r.line}${r.says}`}
              says={`${t("cast.line", { n: r.line })}: ${r.says}`}
            />
          ))}
          {!look.imported && look.refused.length === 0 && look.readings > 0 && (
            <Button look="strong" onClick={() => send.mutate(true)}>
              {t("cast.import")}
            </Button>
          )}
          {look.refused.length > 0 && <p className="font-semibold">{t("cast.nothing")}</p>}
        </div>
      )}
      <Problem says={send.error?.message} />
    </section>
  );
}

export function CastLink({ children }: { children: ReactNode }) {
  return (
    <Link className="min-h-[44px] py-2.5 underline underline-offset-4" to="/wearers/cast">
      {children}
    </Link>
  );
}
