import { Checkbox } from "radix-ui";
import { Check } from "lucide-react";
import { useTranslation } from "react-i18next";
import type { ShopTyped, Unit } from "../api/client";
import { asNumber, asText } from "../piece/draft";
import { TextField } from "../shared/TextField";
import { Lengths } from "./ToolList";

const HAS = ["block", "mallet", "hammer", "mill", "torch", "pickle", "tumbler"] as const;
// What a bench is taken to have that never said.
const USUAL: Record<(typeof HAS)[number], boolean> = {
  block: true,
  mallet: true,
  hammer: true,
  mill: false,
  torch: false,
  pickle: false,
  tumbler: false,
};

interface Props {
  draft: ShopTyped;
  unit: Unit;
  onChange: (path: (string | number)[], value: unknown) => void;
}

/** What else the bench has: whether there is a torch decides whether plans anneal. */
export function OutfitSettings({ draft, unit, onChange }: Props) {
  const { t } = useTranslation();
  const outfit = draft.outfit ?? {};
  const share = asText(Math.round(Number(draft.malleting ?? 0) * 1000) / 10);
  return (
    <section>
      <h2 className="text-lead">{t("tools.outfit")}</h2>
      <p className="mb-2 text-small text-muted">{t("tools.outfit_why")}</p>
      <div className="mb-3 grid grid-cols-2 gap-x-4">
        {HAS.map((name) => (
          <label key={name} className="flex min-h-[44px] items-center gap-3 pb-1">
            <Checkbox.Root
              checked={outfit[name] ?? USUAL[name]}
              onCheckedChange={(checked) => onChange(["outfit", name], checked === true)}
              className="flex size-11 shrink-0 items-center justify-center rounded-sm border border-muted bg-panel data-[state=checked]:border-accent data-[state=checked]:bg-accent"
            >
              <Checkbox.Indicator>
                <Check aria-hidden="true" className="text-on-ink" />
              </Checkbox.Indicator>
            </Checkbox.Root>
            {t(`tools.has.${name}`)}
          </label>
        ))}
      </div>
      <Lengths
        label={t("tools.punches")}
        labelHidden={false}
        values={outfit.punches ?? []}
        unit={unit}
        onChange={(punches) => onChange(["outfit", "punches"], punches)}
      />
      <TextField
        label={t("tools.malleting")}
        hint={t("tools.malleting_why")}
        suffix="%"
        className="mt-3 [&_input]:figures"
        inputMode="decimal"
        placeholder="0"
        defaultValue={share === "0" ? "" : share}
        onText={(text) => {
          const percent = text.trim() === "" ? 0 : asNumber(text);
          onChange(["malleting"], typeof percent === "number" ? percent / 100 : percent);
        }}
      />
    </section>
  );
}
