import { useMutation, useQuery } from "@tanstack/react-query";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type Piece, type Plan, type Unit } from "../api/client";
import { queries } from "../api/queries";
import { SheetDrawing } from "../shared/drawings/SheetDrawing";
import { useBefore } from "./useBefore";
import { useKept } from "../shared/useKept";
import { useSettled } from "../shared/useSettled";
import { typedLength } from "../shared/length";
import { Button } from "../shared/Button";
import { Column } from "../shared/Column";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";
import { YesNo } from "../shared/YesNo";
import { problemAt, type StationProps } from "./context";
import { StepList } from "./StepList";

type PuttingRight = NonNullable<Plan["putting_right"]>;
/** What is noted of a try-on, by what is asked. */
type Noted = Record<string, unknown>;

/** The try-on: what was seen, what to change and by how much, and done. */
export function FitStation(props: StationProps) {
  const { piece, brief, plan, facts, take } = props;
  const { t } = useTranslation();
  const path = { piece_id: piece.id };
  // What is being noted is no part of the piece until it is recorded.
  const noted = useKept<Noted>(`try-on.${piece.id}`, () => piece.noting);
  const at = `${piece.version}.${piece.ticks.length}.${piece.tryons.length}`;
  const told = useQuery(queries.tryOnAnswer(piece.id, at, useSettled(noted.value))).data;
  const record = useMutation({
    mutationFn: () =>
      ask(
        api.POST("/api/pieces/{piece_id}/tryons", {
          params: { path },
          body: { noted: noted.value },
        }),
      ),
    onSuccess: (changed) => {
      noted.change({});
      noted.forget();
      take(changed);
    },
  });
  const refused = record.error instanceof ApiError ? record.error.details : undefined;
  const problems = [...(told?.problems ?? []), ...(refused?.problems ?? [])];
  const finish = useMutation({
    meta: { shown: true },
    mutationFn: (finished: boolean) =>
      ask(api.POST("/api/pieces/{piece_id}/finish", { params: { path }, body: { finished } })),
    onSuccess: take,
  });
  const asks = facts.kinds.find((kind) => kind.kind === brief.piece.kind)?.asks ?? [];
  const answer = told?.answer;
  const before = useBefore();
  // What was refused at a field is said there.
  const atField = asks.some((ask) => problemAt(problems, `tryon.${ask}`));
  const elsewhere = atField ? undefined : record.error?.message;
  const sheet = plan?.drawings.sheets.find((one) => one.stations.includes("fit"));
  return (
    <>
      <section className="space-y-3">
        <h2 className="text-lead">{t("fit.noted")}</h2>
        {plan && (
          <p className="text-body text-muted">{t("fit.planned", { says: plan.fit_says })}</p>
        )}
        {asks.map((ask) => (
          <Ask
            key={ask}
            ask={ask}
            unit={brief.unit ?? "mm"}
            noted={noted.value}
            says={problemAt(problems, `tryon.${ask}`)}
            onNote={(value) => {
              record.reset();
              noted.change({ ...noted.value, [ask]: value });
            }}
          />
        ))}
        <div className="flex flex-wrap gap-2 pt-1">
          <Button
            look="strong"
            disabled={before || Object.values(noted.value).every(isBlank) || record.isPending}
            onClick={() => record.mutate()}
          >
            {t("fit.record")}
          </Button>
          <Button onClick={() => finish.mutate(!piece.finished_at)}>
            {t(piece.finished_at ? "fit.reopen" : "fit.finish")}
          </Button>
        </div>
        <Problem says={elsewhere ?? finish.error?.message} />
      </section>
      <div className="space-y-5">
        {answer ? <Answer answer={answer} /> : <History piece={piece} take={take} />}
        {sheet && plan && !answer && (
          <SheetDrawing sheet={sheet} colour={plan.colour} className="h-[250px]" />
        )}
        <section>
          <h2 className="mb-1 text-lead">{t("fit.order")}</h2>
          <StepList station="fit" {...props} />
        </section>
      </div>
    </>
  );
}

/** What is answered by yes or no; the rest is measured. */
const YES_NO = ["passes_hand", "goes_on", "finger_under", "stays_on", "comfortable"];

interface AskProps {
  ask: string;
  unit: Unit;
  noted: Noted;
  says: string | undefined;
  onNote: (value: unknown) => void;
}

function Ask({ ask, unit, noted, says, onNote }: AskProps) {
  const { t } = useTranslation();
  if (YES_NO.includes(ask)) {
    return (
      <YesNo
        label={t(`fit.${ask}`)}
        value={noted[ask] as boolean | null | undefined}
        onAnswer={onNote}
      />
    );
  }
  return (
    <TextField
      label={t(`fit.${ask}`)}
      inputMode="decimal"
      className="[&_input]:figures [&_input]:text-head"
      value={typedLength(noted[ask], unit)}
      problem={says}
      onText={onNote}
    />
  );
}

const isBlank = (value: unknown) => value == null || value === "";

function Answer({ answer }: { answer: PuttingRight }) {
  const { t } = useTranslation();
  return (
    <section aria-live="polite" className="border-2 border-ink bg-panel p-4">
      <h2 className="text-head leading-tight">{answer.says}</h2>
      <p className="mt-1 text-muted">{answer.because}.</p>
      {(answer.changes ?? []).length > 0 && (
        <table className="mt-3 w-full">
          <thead className="text-small text-muted">
            <tr>
              <th scope="col" className="text-left font-normal">
                {t("fit.changes")}
              </th>
              <th scope="col" className="text-right font-normal">
                {t("fit.before")}
              </th>
              <th scope="col" className="text-right font-normal">
                {t("fit.after")}
              </th>
            </tr>
          </thead>
          <tbody>
            <Column of={(answer.changes ?? []).flatMap((one) => [one.before_mm, one.after_mm])}>
              {(answer.changes ?? []).map((change) => (
                <tr key={change.label} className="border-t hairline">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {change.label}
                  </th>
                  <td className="text-right">
                    <Figure mm={change.before_mm} />
                  </td>
                  <td className="text-right text-lead font-semibold">
                    <Figure mm={change.after_mm} />
                  </td>
                </tr>
              ))}
            </Column>
          </tbody>
        </table>
      )}
    </section>
  );
}

function History({ piece, take }: { piece: Piece; take: (piece: Piece) => void }) {
  const { t } = useTranslation();
  const done = useMutation({
    mutationFn: (tryon_id: number) =>
      ask(
        api.POST("/api/pieces/{piece_id}/tryons/{tryon_id}/done", {
          params: { path: { piece_id: piece.id, tryon_id } },
        }),
      ),
    onSuccess: take,
  });
  const last = piece.tryons.at(-1);
  if (!last) return <p className="text-muted">{t("fit.none")}</p>;
  return (
    <>
      {[...piece.tryons].reverse().map((record, i) => {
        const answer = record.answer;
        const open = i === 0 && !record.done && !answer.settled;
        return (
          <div key={record.id} className={open ? "" : "opacity-80"}>
            <p className="mb-1 text-small text-muted">
              {t("fit.on", {
                when: new Date(record.noted_at).toLocaleDateString("en-GB", {
                  day: "numeric",
                  month: "long",
                }),
              })}
            </p>
            <Answer answer={answer} />
            {open && (
              <Button className="mt-2" onClick={() => done.mutate(record.id)}>
                {t("fit.done_that")}
              </Button>
            )}
          </div>
        );
      })}
    </>
  );
}
