import { ToggleGroup } from "radix-ui";
import { useTranslation } from "react-i18next";
import { SheetDrawing } from "../drawings/SheetDrawing";
import { asText } from "../logic/draft";
import { AdviceList } from "../ui/AdviceList";
import { Figure } from "../ui/Figure";
import { Select } from "../ui/Select";
import { Problem, TextField } from "../ui/TextField";
import { ComposedMakeUp } from "./composed/ComposedMakeUp";
import { problemAt, type StationProps } from "./context";
import { PieceChoices } from "./PieceChoices";

const TEMPERS = ["dead_soft", "quarter_hard", "half_hard", "full_hard", "spring"];

/** How it is built, of what, and on what. */
export function MakeUpStation(props: StationProps) {
  const kind = props.facts.kinds.find((one) => one.kind === props.brief.piece.kind);
  return kind?.composed ? <ComposedMakeUp {...props} /> : <OneWire {...props} />;
}

function OneWire(props: StationProps) {
  const { brief, plan, problems, facts } = props;
  const { t } = useTranslation();
  const sheet = plan?.drawings.sheets.find((one) => one.stations.includes("make_up"));
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const pinned = kind?.choices.some((choice) => choice.name === "loop_pin");
  const opens = plan?.bends[0]?.opens_to_mm;
  return (
    <>
      <div className="space-y-4">
        <PieceChoices {...props} />
        {pinned && <PinChoice {...props} />}
        {kind?.wired && <WireChoice {...props} />}
        <MetalChoice {...props} />
        {kind?.wired && <Allowances {...props} />}
        <Problem says={problemAt(problems, "piece")} />
      </div>
      <div className="flex min-h-[380px] flex-col gap-4">
        {plan && (
          <div>
            {sheet && (
              <>
                <h2 className="text-lg">{sheet.title}</h2>
                <SheetDrawing
                  sheet={sheet}
                  colour={plan.colour}
                  className={sheet.id === "loop" ? "h-[230px]" : "h-[340px]"}
                />
              </>
            )}
            <p className="text-[15px] text-muted">
              {opens !== undefined && (
                <>
                  {t("make_up.loop_opens")} <Figure mm={opens} places={2} unit />
                  {" · "}
                </>
              )}
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

export function WireChoice({ brief, plan, problems, edit }: StationProps) {
  const { t } = useTranslation();
  return (
    <div className="grid grid-cols-2 gap-3">
      <TextField
        label={t("make_up.wire")}
        className="[&_input]:text-xl [&_input]:figures"
        value={asText(brief.wire.size)}
        problem={problemAt(problems, "wire.size", true)}
        hint={plan ? t("make_up.is", { wire: plan.wire }) : t("make_up.wire_hint")}
        onText={(size) => edit(["wire", "size"], size)}
      />
      <Select
        label={t("make_up.temper")}
        value={brief.wire.temper ?? "half_hard"}
        options={TEMPERS.map((value) => ({ value, label: t(`temper.${value}`) }))}
        onChoose={(temper) => edit(["wire", "temper"], temper)}
      />
    </div>
  );
}

function Allowances({ brief, problems, edit }: StationProps) {
  const { t } = useTranslation();
  return (
    <div className="grid grid-cols-2 gap-3">
      <TextField
        label={t("make_up.trim")}
        value={asText(brief.cutting?.trim ?? "1.5")}
        problem={problemAt(problems, "cutting.trim")}
        onText={(trim) => edit(["cutting", "trim"], trim)}
      />
      <TextField
        label={t("make_up.margin")}
        value={asText(brief.cutting?.margin ?? "0")}
        problem={problemAt(problems, "cutting.margin")}
        onText={(margin) => edit(["cutting", "margin"], margin)}
      />
    </div>
  );
}

export function MetalChoice({ brief, facts, edit, problems }: StationProps) {
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

/** The maker's own pins, a press each, for the loops. */
function PinChoice({ brief, edit, shop }: StationProps) {
  const { t } = useTranslation();
  const pins = [...new Set((shop.shop.pins ?? []).flatMap((tool) => tool.diameters))]
    .map(Number)
    .sort((a, b) => a - b);
  const typed = asText((brief.piece as Record<string, unknown>).loop_pin ?? "");
  return (
    <div role="group" aria-label={t("make_up.pins")} className="flex flex-wrap gap-1.5">
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
  );
}
