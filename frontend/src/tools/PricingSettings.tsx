import { useTranslation } from "react-i18next";
import type { ShopTyped } from "../api/client";
import { asNumber, asText } from "../piece/draft";
import { TextField } from "../shared/TextField";

interface Props {
  draft: ShopTyped;
  onChange: (path: (string | number)[], value: unknown) => void;
}

/** What time and overheads are worth to this maker, in their own money: the log reckons with it. */
export function PricingSettings({ draft, onChange }: Props) {
  const { t } = useTranslation();
  const pricing = draft.pricing ?? {};
  const field = (name: "hour" | "overheads") => (
    <TextField
      label={t(`tools.pricing.${name}`)}
      className="[&_input]:figures"
      inputMode="decimal"
      placeholder="0"
      defaultValue={Number(pricing[name] ?? 0) === 0 ? "" : asText(pricing[name])}
      onText={(text) => onChange(["pricing", name], asNumber(text) ?? 0)}
    />
  );
  const share = Math.round(Number(pricing.share ?? 0) * 1000) / 10;
  return (
    <section>
      <h2 className="text-lead">{t("tools.pricing.title")}</h2>
      <p className="mb-2 text-small text-muted">{t("tools.pricing.why")}</p>
      <div className="grid grid-cols-4 items-end gap-3">
        <TextField
          label={t("tools.pricing.currency")}
          maxLength={8}
          placeholder="€"
          value={asText(pricing.currency)}
          onText={(currency) => onChange(["pricing", "currency"], currency)}
        />
        {field("hour")}
        {field("overheads")}
        <TextField
          label={t("tools.pricing.share")}
          className="[&_input]:figures"
          inputMode="decimal"
          suffix="%"
          placeholder="0"
          defaultValue={share === 0 ? "" : asText(share)}
          onText={(text) => {
            const percent = asNumber(text) ?? 0;
            onChange(["pricing", "share"], typeof percent === "number" ? percent / 100 : percent);
          }}
        />
      </div>
    </section>
  );
}
