import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Plan } from "../../api/client";
import {
  after,
  entryAt,
  freshName,
  inserted,
  moved,
  pathOf,
  withCounts,
  withEntries,
  type Entry,
  type Part,
  type Path,
  listIn,
  partIn,
} from "../sequence";
import { AdviceList } from "../../shared/AdviceList";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem } from "../../shared/TextField";
import type { StationProps } from "../context";
import { useLast } from "../../shared/useLast";
import { LengthSlide } from "../../shared/LengthSlide";
import { capital } from "../../shared/capital";
import { asKind, KindSelect } from "../PieceChoices";
import { Allowances, MetalChoice, SectionChoice, WireChoice } from "../WireFields";
import { EntryList } from "./EntryList";
import { ChoiceFields } from "../ChoiceFields";
import { OwnMoves } from "./OwnMoves";
import { PaletteChoice } from "./PaletteChoice";
import { Inspector } from "./Inspector";
import { Proposals } from "./Proposals";
import { SequenceStrip } from "./SequenceStrip";
import { Shelf } from "./Shelf";
import { Slot } from "./Slot";
import { Weave } from "./Weave";
import { PlanAdvice } from "../PlanAdvice";

/** What is looked at beside the sequence. */
type Panel = "entry" | "shelf" | "fits" | "middle" | "closure" | "string" | "piece" | "wire";
const PANELS = ["fits", "piece", "middle", "closure", "string", "wire"] as const;
const STRING = ["string", "string_ends", "string_pin", "string_wraps", "string_tail", "passes"];
/** What a press on something that is no entry opens. */
const OPENS: Record<string, Panel> = { closure: "closure", string: "string", rings: "piece" };
type Typed = Record<string, unknown>;

/** A make-up of parts: the sequence as it lies, its entries, and what fits. */
export function ComposedMakeUp(props: StationProps) {
  const { brief, plan, facts, shop, problems, edit } = props;
  const { t } = useTranslation();
  const [selected, setSelected] = useState<Path | null>(null);
  const [panel, setPanel] = useState<Panel>("fits");
  const [chosenList, setList] = useState("entries");
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const piece = withCounts(kind?.defaults, brief.piece, plan?.counted_out);
  const lines = kind?.lines ?? [];
  const list = lines.some((one) => one.name === chosenList) ? chosenList : "entries";
  const entries = listIn(piece[list]);
  const setEntries = (next: Entry[]) => edit(["piece"], withEntries(counted(), list, next));
  // From the first change on the maker counts, beginning with what the plan counted.
  const counted = () =>
    lines.reduce<Typed>(
      (now, one) => ({ ...now, [one.name]: piece[one.name] }),
      // What was counted beside the entries stays too.
      { ...brief.piece, ...(piece.rings ? { rings: piece.rings } : {}) },
    );
  const select = (path: Path | null) => {
    setSelected(path);
    setPanel(path ? "entry" : "fits");
  };
  // While something is wrong the last drawing keeps its place: nothing below jumps from under a
  // press when the plan is there again.
  const last = useLast(plan);
  const sheet = last?.drawings.sheets.find((one) => one.id === "sequence");
  const colour = last?.colour ?? "#B0643A";
  const name = selected ? entryAt(entries, selected)?.id : undefined;
  const bodies = plan?.woven ?? [];
  const woven = bodies.find((one) => one.entry.split("~")[0] === name) ?? bodies[0];
  const pick = (part: Part) => {
    const path = selected ? after(selected) : [entries.length];
    setEntries(inserted(entries, path, { id: freshName(), part, times: 1 }));
    select(path);
  };
  return (
    <div className="col-span-full grid grid-cols-1 content-start gap-x-7 gap-y-4 tablet:grid-cols-2">
      <div className="col-span-full">
        {sheet ? (
          <SequenceStrip
            sheet={sheet}
            colour={colour}
            faded={plan === null}
            centre={middleOf(last)}
            selected={selected && list === "entries" ? entryAt(entries, selected)?.id : undefined}
            onSelect={(name) => {
              const path = pathOf(listIn(piece.entries), name);
              if (path) {
                setList("entries");
                select(path);
              } else setPanel(OPENS[name] ?? "middle");
            }}
            onDrag={(one, other) => {
              const [from, to] = [pathOf(entries, one), pathOf(entries, other)];
              if (!from || !to || from.length !== to.length) return;
              const [next, path] = moved(entries, from, (to.at(-1) ?? 0) - (from.at(-1) ?? 0));
              setEntries(next);
              select(path);
            }}
          />
        ) : (
          <p className="border hairline bg-panel p-5 text-muted">{t("sequence.waits")}</p>
        )}
        {plan || !last ? (
          <Strength plan={plan} />
        ) : (
          <p className="mt-1.5 text-body text-muted">{t("sequence.waits")}</p>
        )}
      </div>
      <div className="space-y-4">
        <div className="flex items-center justify-between gap-2">
          <h2 className="text-lead">{t("sequence.entries")}</h2>
          {lines.length > 1 && (
            <Select
              label={t("sequence.which")}
              labelHidden
              value={list}
              options={lines.map((one) => ({ value: one.name, label: one.says }))}
              onChoose={(value) => {
                setList(value);
                select(null);
              }}
            />
          )}
          <Button look="strong" onClick={() => setPanel("shelf")}>
            {t("sequence.add")}
          </Button>
        </div>
        <EntryList
          entries={entries}
          parts={facts.parts}
          sheet={list === "entries" && plan ? sheet : undefined}
          colour={colour}
          unit={brief.unit ?? "mm"}
          mirrored={list === "entries" && Boolean(piece.mirrored ?? kind?.defaults.mirrored)}
          selected={selected}
          onSelect={select}
          onChange={setEntries}
        />
        {woven && <Weave body={woven} pieceId={props.piece.id} version={props.piece.version} />}
      </div>
      <div className="space-y-3">
        <PanelTabs panel={panel} onPanel={setPanel} />
        <Problem says={problems[0] && panel !== "entry" ? problems[0].says : undefined} />
        {panel === "fits" && <FitsPanel {...props} />}
        {panel === "shelf" && (
          <Shelf
            parts={facts.parts}
            shop={shop}
            colour={colour}
            onPick={pick}
            onClose={() => setPanel(selected ? "entry" : "fits")}
          />
        )}
        {panel === "entry" && selected && (
          <Inspector
            {...props}
            entries={entries}
            selected={selected}
            onChange={setEntries}
            onSelect={select}
          />
        )}
        <PiecePanels {...props} panel={panel} typed={piece} />
      </div>
    </div>
  );
}

/** Where the front centre lies, when the piece has one: the third of five ticks. */
function middleOf(plan: Plan | null): number | null {
  const ticks = plan?.drawings.rule.ticks_mm ?? [];
  return ticks.length === 5 ? (ticks[2] ?? null) : null;
}

type PanelProps = StationProps & { typed: Typed };

function PiecePanel({ typed, ...props }: PanelProps) {
  const { brief, facts, problems, edit } = props;
  const { t } = useTranslation();
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  const inches = brief.unit === "in";
  const length = kind?.choices.find((one) => one.name === "length");
  return (
    <div className="space-y-3">
      <KindSelect
        label={t("make_up.kind")}
        facts={facts}
        value={brief.piece.kind ?? ""}
        onChoose={(chosen) => edit([], asKind(brief, facts, chosen))}
      />
      {length?.low != null && length.high != null && (
        <LengthSlide
          label={capital(length.says)}
          value={typed.length ?? length.default}
          low={length.low}
          high={length.high}
          inches={inches}
          onSlide={(value) => edit(["piece", "length"], value)}
        />
      )}
      <ChoiceFields
        choices={(kind?.choices ?? []).filter((one) => !STRING.includes(one.name))}
        value={typed}
        at="piece"
        problems={problems}
        unit={brief.unit ?? "mm"}
        onSet={(name, value) => edit(["piece", name], value)}
      />
      <AdviceList
        advice={(props.plan?.advice ?? []).filter((one) => one.field === "piece.length")}
      />
    </div>
  );
}

/** The focal, and what hangs from it. */
function MiddlePanel({ typed, ...props }: PanelProps) {
  const { t } = useTranslation();
  return (
    <div className="space-y-5">
      {(["focal", "hung"] as const).map((slot) => (
        <Slot
          key={slot}
          {...props}
          slot={slot}
          label={t(`sequence.slot.${slot}`)}
          part={partIn(typed[slot])}
        />
      ))}
    </div>
  );
}

function ClosurePanel({ typed, ...props }: PanelProps) {
  const { facts, shop, problems, brief, edit } = props;
  const { t } = useTranslation();
  const closure = partIn(typed.closure) ?? { kind: "spring_clasp" };
  const shelf = facts.closures.find((one) => one.kind === closure.kind);
  return (
    <div className="space-y-3">
      <Select
        label={t("sequence.panel.closure")}
        value={closure.kind}
        options={facts.closures.map((one) => ({ value: one.kind, label: one.says }))}
        onChoose={(kind) => edit(["piece", "closure"], { kind })}
      />
      <p className="text-small leading-snug text-muted">{shelf?.help}</p>
      <ChoiceFields
        choices={shelf?.choices ?? []}
        value={closure}
        at="piece.closure"
        problems={problems}
        unit={brief.unit ?? "mm"}
        onSet={(name, value) => edit(["piece", "closure"], { ...closure, [name]: value })}
      />
      {shelf && "moves" in shelf.defaults && (
        <OwnMoves
          {...{ facts, shop, problems }}
          unit={brief.unit ?? "mm"}
          part={closure}
          defaults={shelf?.defaults}
          at="piece.closure"
          onPart={(next) => edit(["piece", "closure"], next)}
        />
      )}
    </div>
  );
}

/** What gives first, what it weighs, how long it takes: one line under the drawing. */
function Strength({ plan }: { plan: Plan | null }) {
  const { t } = useTranslation();
  if (!plan) return null;
  const { weakest, minutes } = plan;
  return (
    <p className="mt-1.5 flex flex-wrap items-baseline gap-x-5 text-body text-muted">
      {weakest && (
        <span>
          {t("sequence.weakest")} <strong className="text-ink">{weakest.says}</strong>,{" "}
          <span className="figures text-ink">{weakest.newtons.toFixed(1)} N</span> (
          <span className="figures">{Math.round(weakest.grams)} g</span>, {weakest.felt})
        </span>
      )}
      <span>
        {t("make_up.mass")} <span className="figures text-ink">{plan.mass_g.toFixed(1)} g</span>
      </span>
      {minutes != null && (
        <span>
          {t("sequence.minutes")}{" "}
          <span className="figures text-ink">{Math.round(minutes)} min</span>
        </span>
      )}
    </p>
  );
}

/** Which panel is open. */
function PanelTabs({ panel, onPanel }: { panel: Panel; onPanel: (panel: Panel) => void }) {
  const { t } = useTranslation();
  return (
    <div role="group" aria-label={t("sequence.panels")} className="flex justify-between">
      {PANELS.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={panel === one}
          className="min-h-[44px] border-b-[3px] border-transparent px-1.5 text-body font-medium hover:border-hair aria-pressed:border-accent"
          onClick={() => onPanel(one)}
        >
          {t(`sequence.panel.${one}`)}
        </button>
      ))}
    </div>
  );
}

/** The panels that are about the whole piece. */
function PiecePanels({ panel, ...props }: StationProps & { panel: Panel; typed: Typed }) {
  const { brief, facts, problems, edit, typed } = props;
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  return (
    <>
      {panel === "piece" && <PiecePanel {...props} />}
      {panel === "middle" && <MiddlePanel {...props} />}
      {panel === "closure" && <ClosurePanel {...props} />}
      {panel === "string" && (
        <ChoiceFields
          choices={(kind?.choices ?? []).filter((one) => STRING.includes(one.name))}
          value={typed}
          at="piece"
          problems={problems}
          unit={brief.unit ?? "mm"}
          onSet={(name, value) => edit(["piece", name], value)}
        />
      )}
      {panel === "wire" && (
        <div className="space-y-4">
          <WireChoice {...props} />
          {brief.wire.section && <SectionChoice {...props} />}
          <MetalChoice {...props} />
          <PaletteChoice {...props} />
          <Allowances {...props} />
        </div>
      )}
    </>
  );
}

/** What fits, and the advice. */
function FitsPanel(props: StationProps) {
  const { plan } = props;
  return (
    <div className="space-y-4">
      <Proposals {...props} settled={plan !== null} />
      <PlanAdvice plan={plan} />
    </div>
  );
}
