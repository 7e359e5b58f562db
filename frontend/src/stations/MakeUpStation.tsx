import { ToggleGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import type { Brief } from "../api/client";
import { SheetDrawing } from "../drawings/SheetDrawing";
import { asText } from "../logic/draft";
import { AdviceList } from "../ui/AdviceList";
import { Figure } from "../ui/Figure";
import { Select } from "../ui/Select";
import { TextField } from "../ui/TextField";
import { problemAt, type StationProps } from "./context";

const TEMPERS = ["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"];

/** What it is made of, and on what. */
export function MakeUpStation(props: StationProps) {
  const { brief, plan, problems, edit } = props;
  const { t } = useTranslation();
  const sheet = plan?.drawings.sheets.find((one) => one.stations.includes("make_up"));
  return (
    <>
      <div className="space-y-4">
        <TextField
          label={t("make_up.wire")}
          className="[&_input]:text-xl [&_input]:figures"
          value={asText(brief.wire.size)}
          problem={problemAt(problems, "wire.size", true)}
          hint={plan ? t("make_up.is", { wire: plan.wire }) : t("make_up.wire_hint")}
          onText={(size) => edit(["wire", "size"], size)}
        />
        <MetalChoice {...props} />
        <Select
          label={t("make_up.temper")}
          value={brief.wire.temper ?? "half_hard"}
          options={TEMPERS.map((value) => ({ value, label: t(`temper.${value}`) }))}
          onChoose={(temper) => edit(["wire", "temper"], temper)}
        />
        <PinChoice {...props} />
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label={t("make_up.trim")}
            value={asText(brief.cutting?.trim ?? "1.5")}
            problem={problemAt(problems, "cutting.trim") ?? problemAt(problems, "cutting")}
            onText={(trim) => edit(["cutting", "trim"], trim)}
          />
          <TextField
            label={t("make_up.margin")}
            value={asText(brief.cutting?.margin ?? "0")}
            problem={problemAt(problems, "cutting.margin")}
            onText={(margin) => edit(["cutting", "margin"], margin)}
          />
        </div>
      </div>
      <div className="flex min-h-[380px] flex-col gap-4">
        {sheet && plan && (
          <div>
            <h2 className="text-lg">{sheet.title}</h2>
            <SheetDrawing sheet={sheet} colour={plan.colour} className="h-[230px]" />
            <p className="text-[15px] text-muted">
              {t("make_up.loop_opens")}{" "}
              <Figure mm={plan.bends[0]?.opens_to_mm ?? 0} places={2} unit />
              {" · "}
              {t("make_up.mass")} <span className="figures">{plan.mass_g.toFixed(1)} g</span>
            </p>
          </div>
        )}
        <section>
          <h2 className="mb-2 text-lg">{t("make_up.advice")}</h2>
          <AdviceList
            advice={plan?.advice ?? []}
            empty={t(plan ? "make_up.no_advice" : "ledger.waits")}
          />
        </section>
      </div>
    </>
  );
}

function MetalChoice({ brief, facts, edit, problems }: StationProps) {
  const { t } = useTranslation();
  return (
    <div>
      <span id="metal-label" className="mb-1 block font-semibold">
        {t("make_up.metal")}
      </span>
      <ToggleGroup.Root
        type="single"
        aria-labelledby="metal-label"
        className="flex flex-wrap gap-1.5"
        value={brief.wire.metal ?? "copper"}
        onValueChange={(metal) => metal && edit(["wire", "metal"], metal)}
      >
        {facts.metals.map((metal) => (
          <ToggleGroup.Item
            key={metal.id}
            value={metal.id}
            className="flex min-h-[44px] items-center gap-2 rounded-sm border hairline bg-panel px-3 text-[15px] hover:border-ink data-[state=on]:border-accent data-[state=on]:bg-tint data-[state=on]:ring-2 data-[state=on]:ring-accent"
          >
            <svg width="16" height="16" aria-hidden="true">
              <circle cx="8" cy="8" r="7.5" fill={metal.colour} />
            </svg>
            {metal.name}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {problemAt(problems, "wire.metal")}
    </div>
  );
}

function PinChoice({ brief, problems, edit, shop }: StationProps) {
  const { t } = useTranslation();
  const piece = brief.piece as Brief["piece"];
  const pins = [...new Set((shop.shop.pins ?? []).flatMap((tool) => tool.diameters))]
    .map(Number)
    .sort((a, b) => a - b);
  const typed = asText(piece.loop_pin ?? "2.6");
  return (
    <div>
      <TextField
        label={t("make_up.pin")}
        className="[&_input]:figures [&_input]:text-xl"
        value={typed}
        problem={problemAt(problems, "piece.loop_pin")}
        onText={(pin) => edit(["piece", "loop_pin"], pin)}
      />
      <div role="group" aria-label={t("make_up.pins")} className="mt-1.5 flex flex-wrap gap-1.5">
        {pins.map((pin) => (
          <button
            key={pin}
            type="button"
            className="figures min-h-[44px] min-w-[44px] rounded-sm border hairline bg-panel px-2 hover:border-ink aria-pressed:border-accent aria-pressed:bg-tint aria-pressed:ring-2 aria-pressed:ring-accent"
            aria-pressed={Number.parseFloat(typed) === pin}
            onClick={() => edit(["piece", "loop_pin"], `${pin} mm`)}
          >
            <Figure mm={pin} />
          </button>
        ))}
      </div>
    </div>
  );
}
