import { RadioGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import type { Brief, Plan } from "../api/client";
import { asText } from "../logic/draft";
import { Figure } from "../ui/Figure";
import { Problem, TextField } from "../ui/TextField";
import { problemAt, type StationProps } from "./context";

type Option = Plan["ease_options"][number];
type Ease = NonNullable<Brief["ease"]>;

const WORDS = ["snug", "comfortable", "loose"] as const;

function keyOf(ease: Ease): string {
  if (ease.school === "finger") return "finger";
  return ease.word === null ? "own" : `${ease.school}:${ease.word ?? "comfortable"}`;
}

/** The schools of ease side by side, each with the inside girth that it gives here. */
export function EaseChoice({ brief, plan, problems, edit, shop }: StationProps) {
  const { t } = useTranslation();
  const ease: Ease = brief.ease ?? { school: "fixed", word: "comfortable" };
  const options = plan?.ease_options ?? [];
  const find = (school: string, word: string | null) =>
    options.find((o) => o.ease.school === school && (o.ease.word ?? null) === word);
  const table = shop.shop.ease;
  const now = options.find((o) => o.ease.chosen)?.ease.value_mm;
  const current = now === undefined ? "" : `${now.toFixed(1)} mm`;
  const choose = (key: string) => {
    if (key === "finger") edit(["ease"], { school: "finger", finger: asText(table?.finger_mm) });
    else if (key === "own") edit(["ease"], { school: "fixed", word: null, amount: current });
    else {
      const [school, word] = key.split(":");
      edit(["ease"], { school, word });
    }
  };
  const chosen = keyOf(ease);
  const own = options.find((o) => o.ease.chosen && chosen === "own");
  return (
    <section>
      <h2 className="mb-1 text-lg" id="ease-heading">
        {t("ease.question")}
      </h2>
      <RadioGroup.Root
        aria-labelledby="ease-heading"
        value={chosen}
        onValueChange={choose}
        className="grid grid-cols-[auto_1fr_1fr] gap-1.5"
      >
        <span />
        <span className="text-sm text-muted">{t("ease.fixed")}</span>
        <span className="text-sm text-muted">{t("ease.proportional")}</span>
        {WORDS.map((word) => (
          <EaseRow
            key={word}
            word={word}
            cells={[
              [`fixed:${word}`, find("fixed", word), null],
              [
                `proportional:${word}`,
                find("proportional", word),
                `${table?.percent?.[word] ?? ""} %`,
              ],
            ]}
          />
        ))}
        <span className="self-center pr-1">{t("ease.other")}</span>
        <EaseCell id="finger" label={t("ease.finger")} option={find("finger", null)} />
        <EaseCell id="own" label={t("ease.own")} option={own} />
      </RadioGroup.Root>
      {ease.school === "finger" && (
        <TextField
          className="mt-2"
          label={t("ease.finger_thick")}
          value={asText(ease.finger)}
          problem={problemAt(problems, "ease", true)}
          onText={(finger) => edit(["ease", "finger"], finger)}
        />
      )}
      {chosen === "own" && ease.school === "fixed" && (
        <TextField
          className="mt-2"
          label={t("ease.own_amount")}
          value={asText(ease.amount)}
          problem={problemAt(problems, "ease", true)}
          onText={(amount) => edit(["ease", "amount"], amount)}
        />
      )}
      {ease.school !== "finger" && chosen !== "own" && (
        <Problem says={problemAt(problems, "ease", true)} />
      )}
    </section>
  );
}

type Cell = [string, Option | undefined, string | null];

function EaseRow({ word, cells }: { word: string; cells: Cell[] }) {
  const { t } = useTranslation();
  return (
    <>
      <span className="self-center pr-1">{t(`ease.${word}`)}</span>
      {cells.map(([id, option, label]) => (
        <EaseCell key={id} id={id} label={label} option={option} say={t(`ease.${word}`)} />
      ))}
    </>
  );
}

interface CellProps {
  id: string;
  label: string | null;
  option: Option | undefined;
  say?: string;
}

function EaseCell({ id, label, option, say }: CellProps) {
  const { t } = useTranslation();
  return (
    <RadioGroup.Item
      value={id}
      aria-label={[t(`ease.of_${id.split(":")[0]}`), say].filter(Boolean).join(", ")}
      className="flex min-h-[44px] items-center justify-between gap-2 rounded-sm border hairline bg-panel px-2.5 text-left text-[15px] hover:border-ink data-[state=checked]:border-accent data-[state=checked]:bg-tint data-[state=checked]:ring-2 data-[state=checked]:ring-accent"
    >
      <span className="text-muted">
        {label ?? (option && <Figure mm={option.ease.value_mm} signed />)}
      </span>
      {option && <Figure mm={option.inside_girth_mm} className="text-[17px] font-semibold" />}
    </RadioGroup.Item>
  );
}
