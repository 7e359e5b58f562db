import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, type Piece, type Worked } from "../api/client";
import { queries } from "../api/queries";
import { Button } from "../ui/Button";
import { Figure } from "../ui/Figure";
import { Select } from "../ui/Select";
import { Problem, TextField } from "../ui/TextField";

const KEY = "jamreel.quick";
const EMPTY = { wrist: "", hand: "", size: "14 awg", metal: "copper", ease: "comfortable" };
type Quick = typeof EMPTY;

function kept(): Quick {
  const text = sessionStorage.getItem(KEY);
  return text ? { ...EMPTY, ...(JSON.parse(text) as Quick) } : EMPTY;
}

function briefOf(quick: Quick) {
  return {
    schema: 1,
    measures: {
      wrist_girth: { readings: [{ value: quick.wrist }] },
      hand_pass_girth: { readings: [{ value: quick.hand }] },
    },
    ease: { school: "fixed", word: quick.ease },
    piece: { kind: "sliding_bangle", loop_pin: "2.6 mm" },
    wire: { size: quick.size, metal: quick.metal, temper: "half_hard" },
  };
}

/** The quick way: a wrist, a hand and a wire in, the cut out; kept only if wanted. */
export function QuickCut() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const facts = useQuery(queries.facts()).data;
  const [quick, setQuick] = useState<Quick>(kept);
  useEffect(() => sessionStorage.setItem(KEY, JSON.stringify(quick)), [quick]);
  const ready = quick.wrist.trim() !== "" && quick.hand.trim() !== "";
  const brief = briefOf(quick);
  const worked = useQuery({
    queryKey: ["plan", brief],
    queryFn: () => ask<Worked>(api.POST("/api/plan", { body: { brief } })),
    enabled: ready,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  const keep = useMutation({
    mutationFn: () =>
      ask<Piece>(api.POST("/api/pieces", { body: { name: t("quick.piece_name"), brief } })),
    onSuccess: (piece) => {
      setQuick(EMPTY);
      void navigate(`/pieces/${piece.id}/cut`);
    },
  });
  const plan = ready ? (worked.data?.plan ?? null) : null;
  const problems = ready ? (worked.data?.problems ?? []) : [];
  const at = (field: string) => problems.find((p) => p.field.startsWith(field))?.says;
  const set = (key: keyof Quick) => (value: string) => setQuick({ ...quick, [key]: value });
  const fields = ["measures.wrist_girth", "measures.hand_pass_girth", "wire.size"];
  return (
    <section
      aria-labelledby="quick"
      className="border-t hairline bg-panel px-6 py-4 min-[1100px]:min-h-screen min-[1100px]:border-t-0 min-[1100px]:border-l"
    >
      <h2 id="quick" className="text-[22px]">
        {t("quick.title")}
      </h2>
      <p className="mb-3 text-muted">{t("quick.what")}</p>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label={t("site.wrist_girth")}
          className="[&_input]:figures [&_input]:text-xl"
          inputMode="decimal"
          value={quick.wrist}
          onText={set("wrist")}
        />
        <TextField
          label={t("site.hand_pass_girth")}
          className="[&_input]:figures [&_input]:text-xl"
          inputMode="decimal"
          value={quick.hand}
          onText={set("hand")}
        />
        <TextField label={t("make_up.wire")} value={quick.size} onText={set("size")} />
        <Select
          label={t("make_up.metal")}
          value={quick.metal}
          options={(facts?.metals ?? []).map((m) => ({ value: m.id, label: m.name }))}
          onChoose={set("metal")}
        />
        <Select
          label={t("ease.question")}
          className="col-span-2"
          value={quick.ease}
          options={["snug", "comfortable", "loose"].map((word) => ({
            value: word,
            label: t(`ease.${word}`),
          }))}
          onChoose={set("ease")}
        />
      </div>
      {fields.map((field) => (
        <Problem key={field} says={at(field)} />
      ))}
      {problems
        .filter((p) => !fields.some((field) => p.field.startsWith(field)))
        .map((p) => (
          <Problem key={p.field} says={p.says} />
        ))}
      <div aria-live="polite" className="mt-4 border-t border-ink pt-2">
        <p className="text-muted">{plan?.says ?? t("quick.waits")}</p>
        <p className="flex items-baseline justify-between">
          <span className="text-xl font-bold">{t("quick.cut")}</span>
          {plan ? (
            <Figure
              mm={plan.cuts[0]?.length_mm ?? 0}
              unit
              className="text-[64px] leading-none font-bold"
            />
          ) : (
            <span className="text-[64px] leading-none font-light text-muted">–</span>
          )}
        </p>
        {plan && (
          <>
            <ul className="mt-2 space-y-1 text-[15px]">
              {["open", "worn", "overlap", "step"].map((id) => {
                const figure = plan.figures.find((one) => one.id === id);
                return (
                  figure && (
                    <li key={id} className="flex justify-between border-b hairline py-1">
                      <span>{figure.label}</span>
                      <Figure mm={figure.value_mm} />
                    </li>
                  )
                );
              })}
            </ul>
            <Button className="mt-4 w-full" look="strong" onClick={() => keep.mutate()}>
              {t("quick.keep")}
            </Button>
            <p className="mt-1 text-sm text-muted">{t("quick.pin")}</p>
          </>
        )}
        <Problem says={keep.error?.message} />
      </div>
    </section>
  );
}
