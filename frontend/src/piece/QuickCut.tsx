import "../locales/work";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { api, ask, type Brief, type Plan } from "../api/client";
import { queries } from "../api/queries";
import { KindSelect, startOf } from "./PieceChoices";
import { Button } from "../shared/Button";
import { Figure } from "../shared/Figure";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";

const KEY = "jamreel.quick";
interface Quick {
  kind: string;
  values: Record<string, string>;
  size: string;
  metal: string;
  temper: NonNullable<Brief["wire"]["temper"]>;
  ease: "snug" | "comfortable" | "loose";
}
const EMPTY: Quick = {
  kind: "",
  values: {},
  size: "14 awg",
  metal: "copper",
  temper: "half_hard",
  ease: "comfortable",
};
const SHOWN = ["open", "worn", "inside", "overlap", "opening", "fall", "ear_gap", "step"];

function kept(): Quick {
  const text = sessionStorage.getItem(KEY);
  return text ? { ...EMPTY, ...(JSON.parse(text) as Quick) } : EMPTY;
}

function briefOf(quick: Quick, piece: Brief["piece"], sites: readonly string[]): Brief {
  return {
    measures: Object.fromEntries(
      sites.map((site) => [site, { readings: [{ value: quick.values[site] ?? "" }] }]),
    ),
    ease: { school: "fixed", word: quick.ease },
    piece,
    wire: { size: quick.size, metal: quick.metal, temper: quick.temper },
  };
}

/** The quick way: a wrist, a hand and a wire in, the cut out; kept only if wanted. */
export function QuickCut() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const facts = useQuery(queries.facts()).data;
  const [quick, setQuick] = useState<Quick>(kept);
  useEffect(() => sessionStorage.setItem(KEY, JSON.stringify(quick)), [quick]);
  const chosen = quick.kind || (facts?.kinds[0]?.kind ?? "");
  const start = facts && startOf(facts, chosen);
  const kind = start?.kind;
  const sites = kind?.sites ?? [];
  const ready = sites.length > 0 && sites.every((site) => (quick.values[site] ?? "").trim() !== "");
  const brief = briefOf(quick, start?.piece ?? { kind: chosen }, sites);
  const worked = useQuery({
    queryKey: ["plan", brief],
    queryFn: () => ask(api.POST("/api/plan", { body: { brief } })),
    enabled: ready,
    placeholderData: keepPreviousData,
    gcTime: 0,
  });
  const keep = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(api.POST("/api/pieces", { body: { name: start?.says ?? t("quick.piece_name"), brief } })),
    onSuccess: (piece) => {
      setQuick(EMPTY);
      void navigate(`/pieces/${piece.id}/cut`);
    },
  });
  const plan = ready ? (worked.data?.plan ?? null) : null;
  const problems = ready ? (worked.data?.problems ?? []) : [];
  const at = (field: string) => problems.find((p) => p.field.startsWith(field))?.says;
  const set = (key: "kind" | "size" | "metal" | "ease") => (value: string) =>
    setQuick({ ...quick, [key]: value });
  // Another piece starts with its own wire, as long as the wire was not chosen.
  const usual = start?.wire;
  const wireOf = (chosen: string) =>
    facts && usual && usual.size === quick.size && usual.metal === quick.metal
      ? startOf(facts, chosen)?.wire
      : {};
  const fields = [...sites.map((site) => `measures.${site}`), "wire.size"];
  return (
    <section
      aria-labelledby="quick"
      className="border-t hairline bg-panel px-6 py-4 wide:min-h-screen wide:border-t-0 wide:border-l"
    >
      <h2 id="quick" className="text-title">
        {t("quick.title")}
      </h2>
      <p className="mb-3 text-muted">{t("quick.what")}</p>
      <div className="grid grid-cols-2 gap-3">
        {facts && (
          <KindSelect
            label={t("make_up.kind")}
            className="col-span-2"
            facts={facts}
            value={chosen}
            onChoose={(kind) => setQuick({ ...quick, kind, ...wireOf(kind) })}
          />
        )}
        {sites.map((site) => (
          <TextField
            key={site}
            label={t(`site.${site}`)}
            className="[&_input]:figures [&_input]:text-head"
            inputMode="decimal"
            value={quick.values[site] ?? ""}
            onText={(value) => setQuick({ ...quick, values: { ...quick.values, [site]: value } })}
          />
        ))}
        <TextField label={t("make_up.wire")} value={quick.size} onText={set("size")} />
        <Select
          label={t("make_up.metal")}
          value={quick.metal}
          options={(facts?.metals ?? [])
            .filter(({ cord }) => !cord)
            .map((m) => ({ value: m.id, label: m.name }))}
          onChoose={set("metal")}
        />
        {kind?.eases && (
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
        )}
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
        <QuickAnswer plan={plan} onKeep={() => keep.mutate()} />
        <Problem says={keep.error?.message} />
      </div>
    </section>
  );
}

/** The cut, large, and the figures that go with it. */
function QuickAnswer({ plan, onKeep }: { plan: Plan | null; onKeep: () => void }) {
  const { t } = useTranslation();
  const answer = plan?.figures.find((figure) => figure.id === plan.answers.cut);
  return (
    <>
      <p className="text-muted">{plan?.says ?? t("quick.waits")}</p>
      <p className="flex items-baseline justify-between">
        <span className="text-head font-bold">{t("quick.cut")}</span>
        {answer ? (
          <Figure mm={answer.value_mm} unit className="text-figure-large leading-none font-bold" />
        ) : (
          <span className="text-figure-large leading-none font-light text-muted">–</span>
        )}
      </p>
      {plan && (
        <>
          <ul className="mt-2 space-y-1 text-body">
            {SHOWN.map((id) => {
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
          <Button className="mt-4 w-full" look="strong" onClick={onKeep}>
            {t("quick.keep")}
          </Button>
          <p className="mt-1 text-small text-muted">{t("quick.pin")}</p>
        </>
      )}
    </>
  );
}
