import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type AtBench, type OnTheWay, type StepAtBench } from "../api/client";
import { lengthText, typedLength } from "../shared/length";
import { useUnit } from "../shared/useUnit";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";
import { happenings, NOTHING, toTell, type Told } from "./soFar";

interface Props {
  view: AtBench;
  step: StepAtBench;
  onTake: (view: AtBench) => void;
}

/** How far a piece is: what shows early is told, and the rest is planned from there. */
export function SoFar({ view, step, onTake }: Props) {
  const { t } = useTranslation();
  const unit = useUnit();
  const way = view.ways.find((one) => one.entry === step.step.way);
  const [told, setTold] = useState<Told>(NOTHING);
  const params = { path: { piece_id: view.id } };
  const path = "/api/pieces/{piece_id}/bench/so-far" as const;
  const body = toTell(way?.entry ?? "", told);
  const look = useMutation({
    meta: { shown: true },
    mutationFn: () => ask(api.POST(path, { params, body })),
  });
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: () => ask(api.PUT(path, { params, body: { ...body, version: view.version } })),
    onSuccess: (fresh) => {
      look.reset();
      onTake(fresh);
    },
  });
  if (!way || step.done) return null;
  const error = keep.error ?? look.error;
  const problems = error instanceof ApiError ? (error.details.problems ?? []) : [];
  const says = (field: string) => problems.find((one) => one.field === `so_far.${field}`)?.says;
  const type = (field: keyof Told) => (text: string) => {
    look.reset();
    keep.reset();
    setTold({ ...told, [field]: text });
  };
  const lost = told.happened === "lost_count";
  return (
    <details className="group rounded-sm border hairline bg-panel px-4">
      <summary className="flex min-h-[44px] items-center gap-2 font-semibold">
        {t("so_far.title")}
        <span className="font-normal text-muted">
          {way.done
            ? t("so_far.made", { done: way.done, count: way.count, name: way.label })
            : t("so_far.wanted", { count: way.count, name: way.label })}
        </span>
      </summary>
      <form
        className="grid grid-cols-2 gap-x-4 gap-y-2 pb-3"
        onSubmit={(event) => {
          event.preventDefault();
          look.mutate();
        }}
      >
        <Select
          label={t("so_far.happened")}
          className="col-span-2"
          value={told.happened}
          options={happenings(Boolean(way.wire)).map((one) => ({
            value: one,
            label: t(`so_far.${one}`),
          }))}
          onChoose={type("happened")}
        />
        {!lost && (
          <TextField
            label={t("so_far.count", { name: way.label })}
            inputMode="numeric"
            value={told.count}
            problem={says("count")}
            onText={type("count")}
          />
        )}
        <TextField
          label={t("so_far.over")}
          inputMode="decimal"
          suffix={unit}
          value={told.over}
          placeholder={told.count ? about(Number(told.count) * way.each_mm, unit) : ""}
          problem={says("over")}
          onText={type("over")}
        />
        {way.wire && told.happened !== "ran_out" && (
          <TextField
            label={t("so_far.left", { wire: way.wire })}
            inputMode="decimal"
            suffix={unit}
            value={told.left}
            problem={says("left")}
            onText={type("left")}
          />
        )}
        <TextField
          label={t("so_far.in_all")}
          inputMode="numeric"
          placeholder={t("so_far.as_planned")}
          value={told.in_all}
          problem={says("in_all")}
          onText={type("in_all")}
        />
        <div className="col-span-2 mt-1">
          <Button type="submit" disabled={look.isPending}>
            {t("so_far.look")}
          </Button>
        </div>
        <Problem says={problems.length === 0 ? error?.message : undefined} />
        {look.data && <Follows found={look.data} busy={keep.isPending} onKeep={keep.mutate} />}
      </form>
    </details>
  );
}

function about(mm: number, unit: "mm" | "in"): string {
  return mm > 0 ? typedLength(Math.round(mm * 10) / 10, unit) : "";
}

/** What follows: how many more, large; then the wires, cut ones first; then what to buy. */
function Follows(props: { found: OnTheWay; busy: boolean; onKeep: () => void }) {
  const { t } = useTranslation();
  const unit = useUnit();
  const { gone, serves, to_cut, to_buy } = props.found;
  const ref = useRef<HTMLDivElement>(null);
  // The answer is what was asked for: it comes out from under the foot of the screen.
  useEffect(() => {
    void ref.current?.scrollIntoView({ block: "center" });
  }, [props.found]);
  const wire = (one: OnTheWay["to_cut"][number]) =>
    `${one.count} × ${one.label}, ${lengthText(one.length_mm, unit)} ${unit}`;
  const rows: [string, string[]][] = [
    [t("so_far.serves"), serves.map(wire)],
    [t("so_far.to_cut"), to_cut.map(wire)],
    [t("so_far.to_buy"), to_buy.map((one) => `${one.count} × ${one.size}, ${one.label}`)],
  ];
  return (
    <div ref={ref} className="col-span-2 border-t hairline pt-2" role="status">
      <p className="flex items-baseline gap-3">
        <span className="figures text-figure leading-none font-semibold">
          {Math.max(0, gone.in_all - gone.done)}
        </span>
        <span className="text-head">{t("so_far.more", { in_all: gone.in_all })}</span>
      </p>
      <ul className="mt-2 text-lead">
        {gone.says.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {rows
        .filter(([, lines]) => lines.length > 0)
        .map(([title, lines]) => (
          <p key={title} className="mt-1">
            <strong>{title}</strong> {lines.join(" · ")}
          </p>
        ))}
      <Button look="strong" className="mt-3" disabled={props.busy} onClick={props.onKeep}>
        {t("so_far.keep")}
      </Button>
    </div>
  );
}
