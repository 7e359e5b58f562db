import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { TFunction } from "i18next";
import { Link } from "react-router";
import { api, ApiError, ask, type Hand, type HandRecord, type Technique } from "../api/client";
import { benchQueries } from "../api/benchQueries";
import { queries } from "../api/queries";
import { DotLine } from "../shared/drawings/DotLine";
import { OverTime } from "../shared/drawings/OverTime";
import { useUnit } from "../shared/useUnit";
import { addWords } from "../i18n";
import words from "../locales/en-hand.json";
import { KINDS, percent, within } from "./hand";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";

addWords(words);

const keyOf = (one: Technique) => `${one.kind} ${one.technique} ${one.stock}`;
const WIRES: readonly string[] = ["reel", "length", "offcut"];

/** What the bench knows of its maker's hand, and what each figure rests on. */
export function HandSection() {
  const { t } = useTranslation();
  const client = useQueryClient();
  const { data: hand } = useQuery(benchQueries.hand());
  const [open, setOpen] = useState<string | null>(null);
  const take = (fresh: Hand) => {
    client.setQueryData(["hand"], fresh);
    void client.invalidateQueries({ queryKey: ["shop"] });
    void client.invalidateQueries({ queryKey: ["bench"] });
  };
  if (!hand) return <p className="p-8 text-muted">{t("loading")}</p>;
  const chosen = hand.techniques.find((one) => keyOf(one) === open);
  const count = hand.techniques.reduce((n, one) => n + one.own, 0);
  return (
    <div className="grid grid-cols-1 laptop:grid-cols-[minmax(0,1fr)_400px]">
      <title>{`${t("nav.hand")} · Jam Reel`}</title>
      <div className="px-6 py-4">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="mr-auto text-page">
            {t("nav.hand")}
            <span className="ml-4 text-base font-normal text-muted">
              {t("hand.records", { count })}
            </span>
          </h1>
          {chosen && <Button onClick={() => setOpen(null)}>{t("hand.note")}</Button>}
        </div>
        {hand.techniques.length === 0 && (
          <p className="mt-4 max-w-prose">{t("hand.empty", { usual: percent(hand.usual) })}</p>
        )}
        {KINDS.map((kind) => (
          <Group
            key={kind}
            kind={kind}
            techniques={hand.techniques
              .filter((one) => one.kind === kind)
              .sort((a, b) => b.own - a.own)}
            open={open}
            onOpen={setOpen}
          />
        ))}
      </div>
      <aside
        aria-label={t("hand.beside")}
        className={`border-b hairline bg-panel px-5 py-4 laptop:order-none ${chosen ? "order-first" : ""} laptop:min-h-screen laptop:border-b-0 laptop:border-l`}
      >
        {chosen ? (
          <Detail key={keyOf(chosen)} technique={chosen} onTake={take} />
        ) : (
          <NoteSample onTake={take} />
        )}
      </aside>
    </div>
  );
}

interface GroupProps {
  kind: string;
  techniques: Technique[];
  open: string | null;
  onOpen: (key: string) => void;
}

function Group({ kind, techniques, open, onOpen }: GroupProps) {
  const { t } = useTranslation();
  if (techniques.length === 0) return null;
  return (
    <section className="mt-4" aria-labelledby={`hand-${kind}`}>
      <h2 id={`hand-${kind}`} className="border-b border-ink pb-0.5 text-lead">
        {t(`hand.kind.${kind}`)}
        <span className="ml-3 text-small font-normal text-muted">{t(`hand.says.${kind}`)}</span>
      </h2>
      <ul>
        {techniques.map((one) => (
          <li key={keyOf(one)} className="border-b hairline">
            <button
              type="button"
              aria-pressed={open === keyOf(one)}
              className="grid min-h-[58px] w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 px-1 py-1 text-left hover:bg-panel aria-pressed:bg-tint tablet:grid-cols-[minmax(0,1fr)_260px_150px]"
              onClick={() => onOpen(keyOf(one))}
            >
              <span className="leading-tight">
                <span className="block text-lead font-semibold first-letter:uppercase">
                  {one.name}
                </span>
                <span className="block text-small text-muted">{one.wire}</span>
              </span>
              <span className="max-tablet:hidden">
                <DotLine technique={one} width={260} label={said(one, t)} />
              </span>
              <span className="text-right leading-tight">
                <span className="figures block text-title font-semibold whitespace-nowrap">
                  {mainText(one, t)}
                </span>
                <span className="block text-note text-muted">
                  {t(`hand.sure.${one.sureness}`)} · {countText(one, t)}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function countText(one: Technique, t: TFunction): string {
  const own = t("hand.records", { count: one.own });
  return one.near > 0 ? `${own}, ${t("hand.near", { count: one.near })}` : own;
}

/** The one figure of a technique: more or less than planned; of a former the yield. */
function mainText(one: Technique, t: TFunction): string {
  if (one.own === 0 && one.near === 0) return "–";
  if (one.kind === "former") return t("hand.mpa", { mpa: Math.round(one.ratio) });
  return percent(one.ratio);
}

function said(one: Technique, t: TFunction): string {
  return `${one.name}: ${mainText(one, t)}, ${countText(one, t)}`;
}

interface DetailProps {
  technique: Technique;
  onTake: (hand: Hand) => void;
}

function Detail({ technique, onTake }: DetailProps) {
  const { t } = useTranslation();
  const unit = useUnit();
  const { kind } = technique;
  const counting = technique.records.filter((one) => !one.aside).length;
  return (
    <>
      <h2 className="text-lead first-letter:uppercase">{technique.name}</h2>
      <p className="text-muted">{technique.wire}</p>
      <p className="figures my-1 text-figure leading-none font-semibold">
        {mainText(technique, t)}
      </p>
      <p className="mb-2 text-body">
        {kind === "wire" &&
          t("hand.long_enough", {
            percent: percent(technique.long_enough),
            spread: (technique.spread * 100).toFixed(1),
          })}
        {kind === "length" &&
          t("hand.within", {
            count: within(technique.records, 3),
            all: counting,
            far: unit === "in" ? "1/8 in" : "3 mm",
          })}
        {kind === "former" && t("hand.former")}
        {kind === "pace" && t("hand.pace")}
      </p>
      {technique.records.length > 0 && (
        <OverTime technique={technique} width={358} height={150} label={said(technique, t)} />
      )}
      <h3 className="mt-3 border-b border-ink pb-0.5 text-base">{t("hand.rests_on")}</h3>
      <ul>
        {[...technique.records].reverse().map((one) => (
          <Row key={one.id} record={one} kind={kind} onTake={onTake} />
        ))}
      </ul>
    </>
  );
}

interface RowProps {
  record: HandRecord;
  kind: Technique["kind"];
  onTake: (hand: Hand) => void;
}

function Row({ record, kind, onTake }: RowProps) {
  const { t } = useTranslation();
  const [asking, ask_] = useState(false);
  const [why, setWhy] = useState("");
  const set = useMutation({
    meta: { shown: true },
    mutationFn: (aside: boolean) => {
      const params = { path: { record_id: record.id } };
      return ask(api.POST("/api/hand/records/{record_id}/aside", { params, body: { aside, why } }));
    },
    onSuccess: (fresh) => {
      ask_(false);
      onTake(fresh);
    },
  });
  return (
    <li className="border-b hairline py-1.5 text-body">
      <div className="flex items-center gap-3">
        <span className={`grow ${record.aside ? "text-muted line-through" : ""}`}>
          <Amounts record={record} kind={kind} />
          <span className="block text-note text-muted">
            {new Date(record.at).toLocaleDateString("en-GB", { day: "numeric", month: "short" })}
            {" · "}
            {record.piece_id && record.piece ? (
              <Link className="underline" to={`/pieces/${record.piece_id}/form`}>
                {record.piece}
              </Link>
            ) : (
              [t(`hand.source.${record.source}`), record.reel].filter(Boolean).join(", ")
            )}
            {record.note && ` · ${record.note}`}
          </span>
        </span>
        <Button
          onClick={() => (record.aside ? set.mutate(false) : ask_(!asking))}
          aria-expanded={record.aside ? undefined : asking}
        >
          {t(record.aside ? "hand.count_again" : "hand.set_aside")}
        </Button>
      </div>
      {record.aside && <p className="text-small">{t("hand.aside", { why: record.why })}</p>}
      {asking && (
        <form
          className="mt-1 flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            set.mutate(true);
          }}
        >
          <TextField label={t("hand.why")} className="grow" value={why} onText={setWhy} />
          <Button type="submit" look="strong" disabled={set.isPending}>
            {t("hand.set_aside")}
          </Button>
        </form>
      )}
      <Problem says={set.error?.message} />
    </li>
  );
}

/** Planned and taken, in what they are measured in. */
function Amounts({ record, kind }: { record: HandRecord; kind: Technique["kind"] }) {
  const { t } = useTranslation();
  if (kind === "pace")
    return (
      <span className="figures">
        {t("hand.minutes", { planned: record.planned.toFixed(1), took: record.took.toFixed(1) })}
      </span>
    );
  return (
    <span>
      <Figure mm={record.planned} /> → <Figure mm={record.took} unit />
      <span className="figures ml-2 text-muted">
        {kind === "former"
          ? t("hand.mpa", { mpa: Math.round(record.ratio) })
          : percent(record.ratio)}
      </span>
    </span>
  );
}

const SAMPLES = ["loop", "wrapped_loop", "coil"] as const;

/** A trial, unrolled and read: the quickest way to teach the bench a hand. */
function NoteSample({ onTake }: { onTake: (hand: Hand) => void }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const rack = useQuery(queries.rack()).data;
  const wires = (rack?.stock ?? []).filter((one) => WIRES.includes(one.kind));
  const empty = {
    kind: "loop" as (typeof SAMPLES)[number],
    pin: "",
    turns: "",
    took: "",
    note: "",
  };
  const [typed, setTyped] = useState(empty);
  const [reel, setReel] = useState<number | null>(null);
  const stock_id = reel ?? wires[0]?.id;
  const send = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(api.POST("/api/hand/samples", { body: { ...typed, stock_id: stock_id ?? 0 } })),
    onSuccess: (fresh) => {
      setTyped({ ...empty, kind: typed.kind });
      onTake(fresh);
    },
  });
  const problems = send.error instanceof ApiError ? (send.error.details.problems ?? []) : [];
  const says = (name: string) => problems.find((one) => one.field === name)?.says;
  const field = (name: "pin" | "turns" | "took", suffix?: string) => (
    <TextField
      label={t(`hand.sample.${typed.kind}.${name}`)}
      className="[&_input]:figures"
      inputMode="decimal"
      suffix={suffix}
      placeholder={name === "turns" ? "10" : undefined}
      value={typed[name]}
      problem={says(name)}
      onText={(text) => setTyped({ ...typed, [name]: text })}
    />
  );
  return (
    <form
      className="space-y-3"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate();
      }}
    >
      <h2 className="text-lead">{t("hand.note")}</h2>
      <p className="text-body text-muted">{t(`hand.sample.${typed.kind}.how`)}</p>
      <Select
        label={t("hand.sample.kind")}
        value={typed.kind}
        options={SAMPLES.map((value) => ({ value, label: t(`hand.sample.${value}.name`) }))}
        onChoose={(kind) => setTyped({ ...typed, kind: kind as typeof typed.kind })}
      />
      {wires.length > 0 ? (
        <Select
          label={t("hand.sample.reel")}
          value={String(stock_id ?? "")}
          options={wires.map((one) => ({ value: String(one.id), label: one.name }))}
          onChoose={(id) => setReel(Number(id))}
        />
      ) : (
        <p>{t("hand.sample.no_wire")}</p>
      )}
      <div className="grid grid-cols-2 gap-3">
        {field("pin", unit)}
        {typed.kind !== "loop" && field("turns")}
        {field("took", unit)}
      </div>
      <Button type="submit" look="strong" disabled={send.isPending || !stock_id}>
        {t("hand.sample.keep")}
      </Button>
      <Problem says={problems.length === 0 ? send.error?.message : undefined} />
      <p className="border-t hairline pt-3 text-small text-muted">{t("hand.sample.others")}</p>
    </form>
  );
}
