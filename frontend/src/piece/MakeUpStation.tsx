import { useTranslation } from "react-i18next";
import { SheetDrawing } from "../shared/drawings/SheetDrawing";
import { roughMm } from "../shared/length";
import { Column } from "../shared/Column";
import { Figure } from "../shared/Figure";
import { Problem } from "../shared/TextField";
import { partIn } from "./sequence";
import { ComposedMakeUp } from "./makeup/ComposedMakeUp";
import { Slot } from "./makeup/Slot";
import { problemAt, type StationProps } from "./context";
import { PieceChoices } from "./PieceChoices";
import { Allowances, MetalChoice, SectionChoice, WireChoice } from "./WireFields";
import { PlanAdvice } from "./PlanAdvice";

/** How it is built, of what, and on what. */
export function MakeUpStation(props: StationProps) {
  const kind = props.facts.kinds.find((one) => one.kind === props.brief.piece.kind);
  return kind?.composed ? <ComposedMakeUp {...props} /> : <OneWire {...props} />;
}

function OneWire(props: StationProps) {
  const { brief, plan, problems, facts } = props;
  const { t } = useTranslation();
  // A construction without a drawing of its make-up shows what it comes to on the body.
  const sheets = plan?.drawings.sheets ?? [];
  const sheet = sheets.find((one) => one.stations.includes("make_up")) ?? sheets[0];
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const pinned = kind?.choices.some((choice) => choice.name === "loop_pin");
  const opens = plan?.bends[0]?.opens_to_mm;
  return (
    <>
      <div className="space-y-4">
        <PieceChoices {...props} />
        {pinned && <PinChoice {...props} />}
        {kind?.hangs && (
          <Slot
            {...props}
            slot="hung"
            label={t("sequence.slot.loops")}
            part={partIn(brief.piece.hung)}
          />
        )}
        {kind?.wired && <WireChoice {...props} />}
        {(kind?.any_section || brief.wire.section) && <SectionChoice {...props} />}
        <MetalChoice {...props} />
        {kind?.wired && <Allowances {...props} />}
        <Problem says={problemAt(problems, "piece")} />
      </div>
      <div className="flex min-h-[380px] flex-col gap-4">
        {plan && (
          <div>
            {sheet && (
              <>
                <h2 className="text-lead">{sheet.title}</h2>
                <SheetDrawing
                  sheet={sheet}
                  colour={plan.colour}
                  className={sheet.id === "loop" ? "h-[230px]" : "h-[340px]"}
                />
              </>
            )}
            <p className="text-body text-muted">
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
        <PlanAdvice plan={plan} />
      </div>
    </>
  );
}

/** The maker's own pins, a press each, for the loops. */
function PinChoice({ brief, edit, shop, facts }: StationProps) {
  const { t } = useTranslation();
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const usual = Number(kind?.choices.find((one) => one.name === "loop_pin")?.default ?? 0);
  const pins = [...new Set((shop.shop.pins ?? []).flatMap((tool) => tool.diameters ?? []))]
    .map(Number)
    .sort((a, b) => a - b);
  const typed = roughMm(brief.piece.loop_pin || usual, brief.unit === "in");
  return (
    <div role="group" aria-label={t("make_up.pins")} className="flex flex-wrap gap-1.5">
      <Column of={pins}>
        {pins.map((pin) => (
          <button
            key={pin}
            type="button"
            className="figures min-h-[44px] min-w-[44px] rounded-sm border hairline bg-panel px-2 hover:border-ink aria-pressed:border-accent aria-pressed:bg-tint aria-pressed:ring-2 aria-pressed:ring-accent"
            aria-pressed={Math.abs(typed - pin) < 0.005}
            onClick={() => edit(["piece", "loop_pin"], pin)}
          >
            <Figure mm={pin} />
          </button>
        ))}
      </Column>
    </div>
  );
}
