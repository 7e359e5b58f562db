import { ToggleGroup } from "radix-ui";
import { useTranslation } from "react-i18next";

interface Props {
  label: string;
  value: boolean | null | undefined;
  onAnswer: (value: boolean | null) => void;
}

/** A question that may stay unanswered; pressing an answer again takes it back. */
export function YesNo({ label, value, onAnswer }: Props) {
  const { t } = useTranslation();
  const item =
    "min-h-[44px] flex-1 border hairline bg-panel px-4 data-[state=on]:bg-ink data-[state=on]:text-on-ink data-[state=on]:border-ink";
  return (
    <div className="flex items-center justify-between gap-4">
      <span className="font-semibold">{label}</span>
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        className="flex w-36 shrink-0"
        value={value === true ? "yes" : value === false ? "no" : ""}
        onValueChange={(answer) => onAnswer(answer === "" ? null : answer === "yes")}
      >
        <ToggleGroup.Item value="yes" className={`${item} rounded-l-sm`}>
          {t("yes")}
        </ToggleGroup.Item>
        <ToggleGroup.Item value="no" className={`${item} -ml-px rounded-r-sm`}>
          {t("no")}
        </ToggleGroup.Item>
      </ToggleGroup.Root>
    </div>
  );
}
