import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Link, useNavigate } from "react-router";
import { api, ApiError, ask, type LogEntry } from "../api/client";
import { benchQueries } from "../api/benchQueries";
import { queries } from "../api/queries";
import { usePutAway } from "../shared/useArchive";
import { minutesText } from "../day/day";
import { money } from "./log";
import { forSending } from "./photo";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";

const MOST_PHOTOS = 6;

/** A finished piece in full, and another one like it. */
export function LogEntryPage({ id }: { id: number }) {
  const { t } = useTranslation();
  const { data: entry, error } = useQuery(benchQueries.entry(id));
  const navigate = useNavigate();
  const away = usePutAway(() => void navigate("/log"));
  if (error) return <p>{error.message}</p>;
  if (!entry) return <p className="text-muted">{t("loading")}</p>;
  return (
    <article className="space-y-4">
      <header>
        <h2 className="text-title break-words">{entry.name}</h2>
        <p className="text-muted">
          {[
            entry.wearer || t("piece.nobody"),
            new Date(entry.finished_on).toLocaleDateString("en-GB", {
              day: "numeric",
              month: "long",
              year: "numeric",
            }),
          ].join(" · ")}
        </p>
        <p className="text-body">{entry.made_of}</p>
        {entry.piece_id != null && (
          <Link
            className="inline-flex min-h-[44px] items-center underline underline-offset-4"
            to={`/pieces/${entry.piece_id}/fit`}
          >
            {t("log.see_piece")}
          </Link>
        )}
      </header>
      <Photos entry={entry} />
      <Facts entry={entry} />
      <Money entry={entry} />
      <NoteField entry={entry} />
      {entry.piece_id != null && <AnotherLike entry={entry} />}
      <Button onClick={() => away.mutate({ what: "entry", id: entry.id, name: entry.name })}>
        {t("archive.put_away")}
      </Button>
    </article>
  );
}

function Facts({ entry }: { entry: LogEntry }) {
  const { t } = useTranslation();
  const both = (planned: number | null | undefined, made: number | null | undefined) =>
    planned != null && (
      <>
        <Figure mm={planned} /> → {made != null ? <Figure mm={made} unit /> : "–"}
      </>
    );
  const rows: [string, React.ReactNode][] = [
    ["length", both(entry.planned_mm, entry.made_mm)],
    ["inside", both(entry.inside_planned_mm, entry.inside_made_mm)],
    [
      "time",
      <span key="time" className="figures">
        {minutesText(entry.minutes_planned)} →{" "}
        {entry.minutes != null ? minutesText(entry.minutes) : "–"}
      </span>,
    ],
    ["tries", entry.tries > 0 && <span className="figures">{entry.tries}</span>],
    ["reels", entry.reels && <span className="whitespace-normal">{entry.reels}</span>],
    ["wire", entry.wire_mm > 0 && <Figure mm={entry.wire_mm} places={0} unit />],
    [
      "waste",
      entry.waste_mm > 0 && (
        <>
          <Figure mm={entry.waste_mm} unit />{" "}
          <span className="figures text-muted">{entry.waste_g.toFixed(2)} g</span>
        </>
      ),
    ],
  ];
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 border-y hairline py-2">
      {rows
        .filter(([, value]) => value)
        .map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-muted">{t(`log.fact.${name}`)}</dt>
            <dd className="text-right whitespace-nowrap">{value}</dd>
          </div>
        ))}
    </dl>
  );
}

/** What it cost and could be sold for, line by line. */
function Money({ entry }: { entry: LogEntry }) {
  const { t } = useTranslation();
  const lacks = entry.missing.map((one) =>
    one === "material" && !entry.unpriced
      ? t("log.missing.all_material")
      : t(`log.missing.${one}`, { what: entry.unpriced }),
  );
  const price = entry.price;
  const share = price == null ? null : price - (entry.cost ?? 0);
  const rows = [
    ["material", entry.material],
    ["hours", entry.hours],
    ["overheads", entry.overheads],
    ["share", share],
  ] as const;
  return (
    <section>
      <h3 className="text-base">{t("log.price")}</h3>
      {lacks.length > 0 && (
        <p className="border-l-4 border-ink pl-3 text-body">
          {t("log.no_price", { lacks: lacks.join("; ") })}
        </p>
      )}
      <dl className="grid grid-cols-[1fr_auto]">
        {rows
          .filter(([, value]) => value)
          .map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="text-muted">{t(`log.money.${name}`)}</dt>
              <dd className="figures text-right">{money(value, entry.currency)}</dd>
            </div>
          ))}
        <dt className="mt-1 border-y-4 border-double border-ink font-semibold">
          {t("log.money.price")}
        </dt>
        <dd className="figures mt-1 border-y-4 border-double border-ink text-right text-head font-semibold">
          {money(price, entry.currency)}
        </dd>
      </dl>
    </section>
  );
}

function useEntry() {
  const client = useQueryClient();
  return (fresh: LogEntry) => {
    client.setQueryData(["entry", fresh.id], fresh);
    void client.invalidateQueries({ queryKey: ["log"] });
  };
}

function Photos({ entry }: { entry: LogEntry }) {
  const { t } = useTranslation();
  const take = useEntry();
  const client = useQueryClient();
  const path = { entry_id: entry.id };
  const add = useMutation({
    meta: { shown: true },
    mutationFn: async (chosen: File) => {
      const file = await forSending(chosen);
      return ask(
        api.POST("/api/log/{entry_id}/photos", {
          params: { path },
          body: { photo: file as unknown as string },
          bodySerializer: (body) => {
            const form = new FormData();
            form.append("photo", body.photo as unknown as File);
            return form;
          },
        }),
      );
    },
    onSuccess: take,
  });
  const drop = useMutation({
    mutationFn: (photo_id: number) =>
      ask(api.DELETE("/api/log/photos/{photo_id}", { params: { path: { photo_id } } })),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["entry", entry.id] });
      void client.invalidateQueries({ queryKey: ["log"] });
    },
  });
  return (
    <section aria-label={t("log.photos")}>
      <ul className="grid grid-cols-3 gap-2">
        {entry.photos.map((photo, n) => (
          <li key={photo} className="relative">
            <a href={`/api/log/photos/${photo}.jpg`} target="_blank" rel="noreferrer">
              <img
                src={`/api/log/photos/${photo}.jpg`}
                alt={t("log.photo_of", { n: n + 1, name: entry.name })}
                className="aspect-square w-full rounded-sm border hairline object-cover"
              />
            </a>
            <Button
              className="absolute top-0 right-0 px-2"
              aria-label={t("log.drop_photo", { n: n + 1 })}
              onClick={() => drop.mutate(photo)}
            >
              <X aria-hidden="true" size={18} />
            </Button>
          </li>
        ))}
      </ul>
      {entry.photos.length < MOST_PHOTOS && (
        <label className="mt-2 block">
          <span className="mb-1 block font-semibold">{t("log.add_photo")}</span>
          <input
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="field py-2"
            disabled={add.isPending}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) add.mutate(file);
              event.target.value = "";
            }}
          />
        </label>
      )}
      <Problem says={saidOf(add.error)} />
    </section>
  );
}

function saidOf(error: Error | null): string | undefined {
  if (!(error instanceof ApiError)) return error?.message;
  return error.details.problems?.[0]?.says ?? error.details.detail;
}

function NoteField({ entry }: { entry: LogEntry }) {
  const { t } = useTranslation();
  const take = useEntry();
  const [note, setNote] = useState(entry.note);
  const keep = useMutation({
    mutationFn: () => {
      const params = { path: { entry_id: entry.id } };
      return ask(api.PUT("/api/log/{entry_id}/note", { params, body: { note } }));
    },
    onSuccess: take,
  });
  return (
    <label className="block">
      <span className="mb-1 block font-semibold">{t("log.note")}</span>
      <textarea
        className="field min-h-[66px] py-2"
        maxLength={500}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        onBlur={() => note !== entry.note && keep.mutate()}
      />
    </label>
  );
}

/** Another like this: the choices stay, the sizes follow the measures of whom it is for. */
function AnotherLike({ entry }: { entry: LogEntry }) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const client = useQueryClient();
  const wearers = useQuery(queries.wearers()).data ?? [];
  const [name, setName] = useState(entry.name);
  const [whom, setWhom] = useState("");
  const start = useMutation({
    meta: { shown: true },
    mutationFn: () => {
      const params = { path: { entry_id: entry.id } };
      const body = { name, wearer_id: whom ? Number(whom) : null };
      return ask(api.POST("/api/log/{entry_id}/again", { params, body }));
    },
    onSuccess: (piece) => {
      void client.invalidateQueries({ queryKey: ["bench"] });
      void navigate(`/pieces/${piece.id}/measure`);
    },
  });
  return (
    <form
      className="space-y-3 border-t border-ink pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        start.mutate();
      }}
    >
      <h3 className="text-base">{t("log.again")}</h3>
      <TextField label={t("log.again_name")} value={name} maxLength={120} onText={setName} />
      <Select
        label={t("log.again_whom")}
        value={whom}
        options={[
          { value: "", label: t("log.again_same") },
          ...wearers.map((one) => ({ value: String(one.id), label: one.name })),
        ]}
        onChoose={setWhom}
      />
      <Button type="submit" look="strong" disabled={!name.trim() || start.isPending}>
        {t("log.again_start")}
      </Button>
      <Problem says={saidOf(start.error)} />
    </form>
  );
}
