import "../locales/work";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { api, ApiError, ask, type ShopTyped, type ShopView, type Unit } from "../api/client";
import { queries } from "../api/queries";
import { useKept } from "../shared/useKept";
import { asNumber, asText, withValue } from "../piece/draft";
import { inUnit } from "./shop";
import { typedLength, typedLengths, typedWithUnit } from "../shared/length";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { Problem, TextField } from "../shared/TextField";
import { OutfitSettings } from "./OutfitSettings";
import { PricingSettings } from "./PricingSettings";
import { ToolList } from "./ToolList";
import { addWords } from "../i18n";
import words from "../locales/en-tools.json";

addWords(words);

const PARTS = ["wrist", "neck", "head", "ankle", "arm"] as const;
type Part = (typeof PARTS)[number];
const WORDS = ["snug", "comfortable", "loose"] as const;

/** What the maker bends on, what the ease words mean, and how bare numbers are read. */
export function ToolsSection() {
  const { t } = useTranslation();
  const { data: shop } = useQuery(queries.shop());
  const [saved, setSaved] = useState(0);
  if (!shop) return <p className="p-8 text-muted">{t("loading")}</p>;
  // A new version makes a new form, so what was saved is remembered out here.
  return (
    <ToolsForm
      key={shop.version}
      shop={shop}
      saved={saved === shop.version}
      onSaved={(view) => setSaved(view.version)}
    />
  );
}

interface FormProps {
  shop: ShopView;
  saved: boolean;
  onSaved: (view: ShopView) => void;
}

/** What the words of ease mean on this bench, part by part. */
function EaseSettings({ draft, unit, onChange }: SettingsProps) {
  const { t } = useTranslation();
  const [part, setPart] = useState<Part>("wrist");
  return (
    <section>
      <h2 className="mb-1 text-lead">{t("tools.ease")}</h2>
      <p className="mb-2 text-small text-muted">{t("tools.ease_why")}</p>
      <Select
        label={t("tools.part")}
        labelHidden
        className="mb-2"
        value={part}
        options={PARTS.map((value) => ({ value, label: t(`body.${value}`) }))}
        onChoose={(value) => setPart(value as Part)}
      />
      {WORDS.map((word) => (
        <div key={part + word + unit} className="mb-2 grid grid-cols-[1fr_1fr_1fr] items-end gap-2">
          <span className="pb-2.5">{t(`ease.${word}`)}</span>
          <TextField
            label={`${t(`ease.${word}`)}, ${unit}`}
            labelHidden
            suffix={unit}
            className="[&_input]:figures"
            inputMode="decimal"
            defaultValue={typedLength(draft.ease?.[part]?.fixed_mm?.[word], unit)}
            onText={(value) => onChange(["ease", part, "fixed_mm", word], value)}
          />
          <NumberField
            label={`${t(`ease.${word}`)}, %`}
            suffix="%"
            value={draft.ease?.[part]?.percent?.[word]}
            onNumber={(value) => onChange(["ease", part, "percent", word], value)}
          />
        </div>
      ))}
    </section>
  );
}

function ToolsForm({ shop, saved, onSaved }: FormProps) {
  const { t } = useTranslation();
  const client = useQueryClient();
  const typed = useKept<ShopTyped>(`tools.${shop.version}`, () => asTyped(shop));
  const draft = typed.value;
  const set = (path: (string | number)[], value: unknown) =>
    typed.change(withValue(draft, path, value));
  const save = useMutation({
    meta: { shown: true },
    mutationFn: () =>
      ask(
        api.PUT("/api/shop", {
          body: { version: shop.version, shop: draft },
        }),
      ),
    onSuccess: (view) => {
      typed.forget();
      onSaved(view);
      return client.invalidateQueries();
    },
  });
  const says = save.error instanceof ApiError ? save.error.details : undefined;
  const unit = draft.unit ?? "mm";
  return (
    <form
      className="px-6 py-4"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate();
      }}
    >
      <title>{`${t("nav.tools")} · Jam Reel`}</title>
      <div className="mb-4 flex items-center gap-4">
        <h1 className="mr-auto text-page">{t("nav.tools")}</h1>
        <span role="status" className="text-muted">
          {saved && !save.isPending && t("tools.saved")}
        </span>
        <Button type="submit" look="strong" disabled={save.isPending}>
          {t("tools.save")}
        </Button>
      </div>
      <Problem says={says && `${says.field ?? ""}: ${says.detail}`.replace(/^: /, "")} />
      <div className="grid grid-cols-1 gap-x-10 gap-y-6 laptop:grid-cols-[1.6fr_1fr]">
        <div className="space-y-6">
          <ToolList
            key={`f${unit}`}
            list="formers"
            tools={draft.formers ?? []}
            unit={unit}
            onChange={set}
          />
          <ToolList
            key={`p${unit}`}
            list="pins"
            tools={draft.pins ?? []}
            unit={unit}
            onChange={set}
          />
          <OutfitSettings key={`o${unit}`} draft={draft} unit={unit} onChange={set} />
          <PricingSettings draft={draft} onChange={set} />
        </div>
        <div className="space-y-6">
          <section>
            <h2 className="mb-2 text-lead">{t("tools.reading")}</h2>
            <div className="space-y-3">
              <Select
                label={t("tools.unit")}
                value={unit}
                options={["mm", "in"].map((value) => ({ value, label: t(`unit.${value}`) }))}
                onChoose={(value) => typed.change(inUnit(draft, value as Unit))}
              />
              <Select
                label={t("tools.gauge")}
                value={draft.gauge_system ?? "awg"}
                options={["awg", "swg"].map((value) => ({ value, label: t(`gauge.${value}`) }))}
                onChoose={(value) => set(["gauge_system"], value)}
              />
            </div>
          </section>
          <WireSettings draft={draft} unit={unit} inForce={shop.shop} onChange={set} />
          <Flesh draft={draft} onChange={set} />
          <EaseSettings draft={draft} unit={unit} onChange={set} />
          <Landmarks marks={draft.landmarks ?? []} unit={unit} onChange={set} />
        </div>
      </div>
    </form>
  );
}

/** The settings as typed, with what was never typed filled in from what is in force. */
function asTyped(shop: ShopView): ShopTyped {
  const { schema, unit, gauge_system, language, ease, formers, pins, landmarks } = shop.shop;
  const typed = shop.typed;
  return {
    // What is set elsewhere (the shelf, say) stays as it is.
    ...typed,
    schema,
    unit,
    gauge_system,
    language,
    ease: ease,
    formers: typed.formers ?? formers,
    pins: typed.pins ?? pins,
    landmarks: typed.landmarks ?? landmarks,
  };
}

interface SettingsProps {
  draft: ShopTyped;
  unit: Unit;
  onChange: (path: (string | number)[], value: unknown) => void;
}

/** What a remnant is worth keeping from, how wire is sold, and metals of the maker's own. */
function WireSettings({
  draft,
  unit,
  inForce,
  onChange,
}: SettingsProps & { inForce: { keep_length?: number; sold_length?: number } }) {
  const { t } = useTranslation();
  const metals = draft.metals ?? [];
  return (
    <section className="space-y-2">
      <h2 className="text-lead">{t("tools.wire")}</h2>
      <div className="grid grid-cols-2 gap-3">
        {(["keep_length", "sold_length"] as const).map((name) => (
          <TextField
            key={name}
            label={t(`tools.${name}`)}
            className="[&_input]:figures"
            inputMode="decimal"
            placeholder={typedWithUnit(inForce[name] ?? 0, unit)}
            value={typedLength(draft[name], unit)}
            onText={(text) => onChange([name], text === "" ? undefined : text)}
          />
        ))}
      </div>
      {metals.map((metal, i) => (
        <div key={i} className="grid grid-cols-[1fr_90px_90px_auto] items-end gap-2">
          <TextField
            label={t("tools.metal_name")}
            value={metal.name}
            onText={(name) => {
              onChange(["metals", i, "name"], name);
              onChange(["metals", i, "id"], metal.id || slug(name));
            }}
          />
          <TextField
            label={t("tools.density")}
            className="[&_input]:figures"
            inputMode="decimal"
            defaultValue={asText(metal.density)}
            onText={(text) => onChange(["metals", i, "density"], Number(text) || text)}
          />
          <TextField
            label={t("tools.half_hard")}
            className="[&_input]:figures"
            inputMode="decimal"
            defaultValue={asText(metal.yields?.half_hard)}
            onText={(text) => onChange(["metals", i, "yields", "half_hard"], Number(text) || text)}
          />
          <Button
            aria-label={t("tools.remove", { name: metal.name })}
            onClick={() =>
              onChange(
                ["metals"],
                metals.filter((_, n) => n !== i),
              )
            }
          >
            {t("tools.remove_short")}
          </Button>
        </div>
      ))}
      <Button
        onClick={() =>
          onChange(
            ["metals"],
            [
              ...metals,
              { id: `own_${metals.length + 1}`, name: t("tools.new_metal"), density: 8.9 },
            ],
          )
        }
      >
        {t("tools.add_metal")}
      </Button>
    </section>
  );
}

function slug(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "_")
    .replace(/^[^a-z]+/, "own_");
}

/** How much a wrist's thin side gives when a cuff goes on. */
function Flesh({ draft, onChange }: Omit<SettingsProps, "unit">) {
  const { t } = useTranslation();
  const share =
    draft.flesh === undefined ? "" : asText(Math.round(Number(draft.flesh) * 1000) / 10);
  return (
    <TextField
      label={t("tools.flesh")}
      hint={t("tools.flesh_why")}
      suffix="%"
      className="[&_input]:figures"
      inputMode="decimal"
      placeholder="10"
      defaultValue={share}
      onText={(text) => {
        const percent = asNumber(text);
        onChange(["flesh"], typeof percent === "number" ? percent / 100 : percent);
      }}
    />
  );
}

interface LandmarkProps {
  unit: Unit;
  marks: NonNullable<ShopTyped["landmarks"]>;
  onChange: (path: (string | number)[], value: unknown) => void;
}

/** Places of the chest, so far below the shoulder points: what a fall is named by. */
function Landmarks({ marks, unit, onChange }: LandmarkProps) {
  const { t } = useTranslation();
  const below = typedLengths(
    marks.map((mark) => mark.below),
    unit,
  );
  return (
    <section>
      <h2 className="text-lead">{t("tools.landmarks")}</h2>
      <p className="mb-2 text-small text-muted">{t("tools.landmarks_why")}</p>
      {marks.map((mark, i) => (
        <div key={i} className="mb-2 grid grid-cols-[1fr_110px] gap-2">
          <TextField
            label={t("tools.landmark_name", { n: i + 1 })}
            labelHidden
            value={mark.name}
            onText={(name) => onChange(["landmarks", i, "name"], name)}
          />
          <TextField
            label={t("tools.landmark_below", { name: mark.name })}
            labelHidden
            className="[&_input]:figures"
            inputMode="decimal"
            suffix={unit}
            value={below[i]}
            onText={(below) => onChange(["landmarks", i, "below"], below)}
          />
        </div>
      ))}
    </section>
  );
}

interface NumberProps {
  label: string;
  suffix: string;
  value: number | undefined;
  onNumber: (value: number | string) => void;
}

function NumberField({ label, suffix, value, onNumber }: NumberProps) {
  return (
    <TextField
      label={label}
      labelHidden
      suffix={suffix}
      className="[&_input]:figures"
      inputMode="decimal"
      defaultValue={value}
      onText={(text) =>
        onNumber(text.trim() === "" || Number.isNaN(Number(text)) ? text : Number(text))
      }
    />
  );
}
