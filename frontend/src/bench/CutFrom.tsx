import { useMutation } from "@tanstack/react-query";
import { Ruler } from "lucide-react";
import { useTranslation } from "react-i18next";
import { api, ask, type StepAtBench } from "../api/client";
import { useUnit } from "../shared/useUnit";
import { lengthText, typedLength } from "../shared/length";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";

/** What is known of a wire as it is cut: its length if it differs, and what it came from. */
export interface CutTyped {
  actual: string;
  stock: number | null;
}

interface Props {
  piece: number;
  step: StepAtBench;
  typed: CutTyped;
  /** What is asked about the length that was typed. */
  question: string | undefined;
  onTyped: (typed: CutTyped) => void;
  onCut: () => void;
  onSure: () => void;
}

export function CutFrom({ piece, step, typed, question, onTyped, onCut, onSure }: Props) {
  const { t } = useTranslation();
  const unit = useUnit();
  const wire = step.cuts[0];
  const read = useMutation({
    mutationFn: async () => {
      const params = { path: { piece_id: piece }, query: { key: step.step.id, what: "cut" } };
      return (await ask(api.GET("/api/pieces/{piece_id}/bench/calliper", { params }))).text.trim();
    },
    onSuccess: (actual) => onTyped({ ...typed, actual }),
  });
  if (!wire) return null;
  return (
    <form
      className="grid max-w-[36rem] grid-cols-2 items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onCut();
      }}
    >
      <div className="flex items-end gap-2">
        <TextField
          label={t("at.as_cut")}
          className="grow [&_input]:figures [&_input]:text-lead"
          inputMode="decimal"
          suffix={unit}
          placeholder={typedLength(Math.round(wire.length_mm * 10) / 10, unit)}
          value={typed.actual}
          problem={question}
          onText={(actual) => onTyped({ ...typed, actual })}
        />
        <Button aria-label={t("at.calliper")} onClick={() => read.mutate()}>
          <Ruler aria-hidden="true" size={20} />
        </Button>
      </div>
      {question && <Button onClick={onSure}>{t("board.sure", { actual: typed.actual })}</Button>}
      {wire.may_serve.length > 0 && (
        <Select
          label={t("at.cut_from")}
          value={String(chosen(step, typed) ?? "")}
          options={[
            ...wire.may_serve.map((one) => ({
              value: String(one.id),
              label: `${one.name} (${lengthText(one.amount_mm, unit, 0)} ${unit})`,
            })),
            { value: "", label: t("at.cut_elsewhere") },
          ]}
          onChoose={(id) => onTyped({ ...typed, stock: id ? Number(id) : 0 })}
        />
      )}
    </form>
  );
}

/** What a wire is taken from: as chosen, where that still serves, else what wastes least. */
export function chosen(step: StepAtBench, typed: CutTyped): number | null {
  const serves = step.cuts[0]?.may_serve ?? [];
  if (typed.stock === 0) return null;
  return (serves.find((one) => one.id === typed.stock) ?? serves[0])?.id ?? null;
}
