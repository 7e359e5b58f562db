import { ToggleGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import { buttonLook } from "../shared/Button";
import { Select } from "../shared/Select";
import type { StationProps } from "./context";
import { addWords } from "../i18n";
import { OwnAndUsual } from "./OwnAndUsual";
import words from "../locales/en-form.json";

addWords(words);

const STRAIGHTEN = ["draw", "as_reeled"] as const;
const SHAPED_BY = ["former", "hands"] as const;
const HAMMER = ["set", "mallet", "steel", "both"] as const;
const SPRINGBACK = ["even", "hardening"] as const;
const HAND = ["own", "usual"] as const;
const FINISH = ["hallmark", "file", "patina", "tumble", "polish"] as const;

/** How the maker works this piece: straightened or not, shaped by what, hammered, finished. */
export function HowMade({ brief, piece, plan, edit }: StationProps) {
  const { t } = useTranslation();
  const making = brief.making ?? {};
  const shaped = (plan?.steps ?? []).some((step) => step.id === "shape");
  const choice = <T extends string>(name: string, value: T, options: readonly T[]) => (
    <div>
      <Select
        label={t(`making.${name}.label`)}
        value={value}
        options={options.map((one) => ({ value: one, label: t(`making.${name}.${one}`) }))}
        onChoose={(next) => edit(["making", name], next)}
      />
      <p className="mt-1 text-small text-muted">{t(`making.${name}.help.${value}`)}</p>
    </div>
  );
  return (
    <details className="border-y hairline py-2">
      <summary className="flex min-h-[44px] items-center font-semibold">
        {t("making.title")}
        <span className="ml-2 font-normal text-muted">{summary(t, making)}</span>
      </summary>
      <div className="mt-2 grid grid-cols-2 gap-3">
        {choice("straighten", making.straighten ?? "draw", STRAIGHTEN)}
        {shaped && choice("shaped_by", making.shaped_by ?? "former", SHAPED_BY)}
        {shaped && choice("hammer", making.hammer ?? "set", HAMMER)}
        {shaped && choice("springback", making.springback ?? "even", SPRINGBACK)}
        {choice("hand", making.hand ?? "own", HAND)}
      </div>
      {plan && <OwnAndUsual plan={plan} />}
      {shaped && making.shaped_by === "hands" && (
        <a
          className={`${buttonLook("strong")} mt-3`}
          href={`/api/pieces/${piece.id}/outline.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          {t("making.outline")}
        </a>
      )}
      <span id="finish-label" className="mt-3 mb-1 block font-semibold">
        {t("making.finish.label")}
      </span>
      <ToggleGroup.Root
        type="multiple"
        aria-labelledby="finish-label"
        className="flex flex-wrap gap-1.5"
        value={[...(making.finish ?? [])]}
        onValueChange={(finish) => edit(["making", "finish"], finish)}
      >
        {FINISH.map((one) => (
          <ToggleGroup.Item
            key={one}
            value={one}
            className="min-h-[44px] rounded-sm border hairline bg-panel px-3 text-body hover:border-ink data-[state=on]:border-accent data-[state=on]:bg-tint data-[state=on]:ring-2 data-[state=on]:ring-accent"
          >
            {t(`making.finish.${one}`)}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
    </details>
  );
}

type Making = NonNullable<StationProps["brief"]["making"]>;

function summary(t: (key: string) => string, making: Making): string {
  const said = [
    making.shaped_by === "hands" && t("making.shaped_by.hands"),
    making.hammer && making.hammer !== "set" && t(`making.hammer.${making.hammer}`),
    ...(making.finish ?? []).map((one) => t(`making.finish.${one}`)),
  ].filter(Boolean);
  return said.join(", ");
}
