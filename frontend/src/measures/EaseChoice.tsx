import { RadioGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import type { Brief, Plan } from "../api/client";
import { typedLength, typedWithUnit } from "../shared/length";
import { Column } from "../shared/Column";
import { Figure } from "../shared/Figure";
import { Problem, TextField } from "../shared/TextField";
import { problemAt, type StationProps } from "../piece/context";

type Option = Plan["ease_options"][number];
type Ease = NonNullable<Brief["ease"]>;

const WORDS = ["snug", "comfortable", "loose"] as const;

function keyOf(ease: Ease): string {
  if (ease.school === "finger" || ease.school === "copy") return ease.school;
  return ease.word === null ? "own" : `${ease.school}:${ease.word ?? "comfortable"}`;
}

/** The schools of ease side by side, each with the inside girth that it gives here. */
export function EaseChoice({ brief, plan, problems, edit, shop, facts }: StationProps) {
  const { t } = useTranslation();
  const ease: Ease = brief.ease ?? { school: "fixed", word: "comfortable" };
  const options = plan?.ease_options ?? [];
  const find = (school: string, word: string | null) =>
    options.find((o) => o.ease.school === school && (o.ease.word ?? null) === word);
  const part = facts.kinds.find((kind) => kind.kind === brief.piece.kind)?.worn_on ?? "wrist";
  const table = shop.shop.ease?.[part as "wrist"];
  const now = options.find((o) => o.ease.chosen)?.ease.value_mm;
  const unit = brief.unit ?? "mm";
  const current = now === undefined ? "" : typedWithUnit(now, unit);
  const inside = options.find((o) => o.ease.chosen)?.inside_girth_mm;
  const copied = inside === undefined ? "" : typedWithUnit(inside, unit);
  const choose = (key: string) => {
    if (key === "finger")
      edit(["ease"], { school: "finger", finger: typedLength(table?.finger_mm, unit) });
    else if (key === "copy") edit(["ease"], { school: "copy", inside_girth: copied });
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
      <h2 className="mb-1 text-lead" id="ease-heading">
        {t("ease.question")}
      </h2>
      <RadioGroup.Root
        aria-labelledby="ease-heading"
        value={chosen}
        onValueChange={choose}
        className="grid grid-cols-[auto_1fr_1fr] gap-1.5"
      >
        <Column of={options.map((one) => one.ease.value_mm)}>
          <span />
          <span className="text-small text-muted">{t("ease.fixed")}</span>
          <span className="text-small text-muted">{t("ease.proportional")}</span>
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
          <span />
          <EaseCell
            id="copy"
            label={t("ease.copy")}
            option={options.find((o) => o.ease.school === "copy")}
            wide
          />
        </Column>
      </RadioGroup.Root>
      {ease.school === "finger" && (
        <TextField
          className="mt-2"
          label={t("ease.finger_thick")}
          value={typedLength(ease.finger, unit)}
          problem={problemAt(problems, "ease", true)}
          onText={(finger) => edit(["ease", "finger"], finger)}
        />
      )}
      {chosen === "own" && ease.school === "fixed" && (
        <TextField
          className="mt-2"
          label={t("ease.own_amount")}
          value={typedLength(ease.amount, unit)}
          problem={problemAt(problems, "ease", true)}
          onText={(amount) => edit(["ease", "amount"], amount)}
        />
      )}
      {ease.school === "copy" && (
        <TextField
          className="mt-2"
          label={t("ease.copy_girth")}
          value={typedLength(ease.inside_girth, unit)}
          problem={problemAt(problems, "ease", true)}
          onText={(girth) => edit(["ease", "inside_girth"], girth)}
        />
      )}
      {ease.school !== "finger" && ease.school !== "copy" && chosen !== "own" && (
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
  wide?: boolean;
}

function EaseCell({ id, label, option, say, wide = false }: CellProps) {
  const { t } = useTranslation();
  return (
    <RadioGroup.Item
      value={id}
      aria-label={[t(`ease.of_${id.split(":")[0]}`), say].filter(Boolean).join(", ")}
      className={`${wide ? "col-span-2 " : ""}flex min-h-[44px] items-center justify-between gap-2 rounded-sm border hairline bg-panel px-2.5 text-left text-body hover:border-ink data-[state=checked]:border-accent data-[state=checked]:bg-tint data-[state=checked]:ring-2 data-[state=checked]:ring-accent`}
    >
      <span className="text-muted">
        {label ?? (option && <Figure mm={option.ease.value_mm} signed />)}
      </span>
      {option && <Figure mm={option.inside_girth_mm} className="text-lead font-semibold" />}
    </RadioGroup.Item>
  );
}
