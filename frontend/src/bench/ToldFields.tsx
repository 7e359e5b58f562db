import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Ruler } from "lucide-react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type AtBench, type StepAtBench } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { typedLength } from "../shared/length";
import { Button } from "../shared/Button";
import { Problem, TextField } from "../shared/TextField";

interface Props {
  piece: number;
  step: StepAtBench;
  onTake: (view: AtBench) => void;
}

/** What was really so: asked when it is known, never in the way. Enter keeps it. */
export function ToldFields({ piece, step, onTake }: Props) {
  const { t } = useTranslation();
  const unit = useUnit();
  const first = () =>
    Object.fromEntries(
      step.asks.map((one) => {
        const told = step.told[one.id];
        return [one.id, told === undefined ? "" : one.count ? `${told}` : typedLength(told, unit)];
      }),
    );
  const [typed, setTyped] = useState<Record<string, string>>(first);
  const path = { piece_id: piece };
  const tell = useMutation({
    meta: { shown: true },
    mutationFn: (told: Record<string, string>) => {
      const body = { key: step.step.id, told };
      return ask(api.POST("/api/pieces/{piece_id}/bench/tell", { params: { path }, body }));
    },
    onSuccess: onTake,
  });
  const read = useMutation({
    mutationFn: async (what: string) => {
      const query = { key: step.step.id, what };
      const line = await ask(
        api.GET("/api/pieces/{piece_id}/bench/calliper", { params: { path, query } }),
      );
      return { what, text: line.text.trim() };
    },
    onSuccess: ({ what, text }) => {
      const next = { ...typed, [what]: text };
      setTyped(next);
      tell.mutate({ [what]: text });
    },
  });
  const problems = tell.error instanceof ApiError ? tell.error.details.problems : [];
  const says = (id: string) => problems?.find((one) => one.field === `told.${id}`)?.says;
  const keep = () => tell.mutate(typed);
  if (step.asks.length === 0) return null;
  return (
    <form
      className="rounded-sm border hairline bg-panel px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <h2 className="mb-1 text-base">{t("at.told")}</h2>
      {step.asks.map((one) => (
        <div key={one.id} className="flex items-end gap-2">
          <TextField
            label={one.label}
            className="grow [&_input]:figures [&_input]:text-lead"
            inputMode="decimal"
            suffix={one.count ? undefined : unit}
            placeholder={one.expected == null ? "" : about(one.expected, one.count ?? false, unit)}
            value={typed[one.id] ?? ""}
            problem={says(one.id)}
            onText={(text) => setTyped({ ...typed, [one.id]: text })}
          />
          {!one.count && one.expected != null && (
            <Button aria-label={t("at.calliper")} onClick={() => read.mutate(one.id)}>
              <Ruler aria-hidden="true" size={20} />
            </Button>
          )}
        </div>
      ))}
      <div className="mt-2 flex items-center gap-3">
        <Button type="submit" disabled={tell.isPending}>
          {t("at.tell")}
        </Button>
        {tell.isSuccess && <span className="text-muted">{t("at.kept")}</span>}
      </div>
      <Problem says={problems?.length === 0 ? tell.error?.message : undefined} />
    </form>
  );
}

function about(expected: number, count: boolean, unit: "mm" | "in"): string {
  return count ? `${expected}` : typedLength(Math.round(expected * 10) / 10, unit);
}
