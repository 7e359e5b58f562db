import { useTranslation } from "react-i18next";
import type { Brief, Facts } from "../api/client";
import { Select } from "../shared/Select";
import { ChoiceFields } from "./ChoiceFields";
import type { StationProps } from "./context";

/** Which construction, and its own choices: asked from what the construction declares. */
export function PieceChoices(props: StationProps) {
  const { brief, facts, problems, edit } = props;
  const { t } = useTranslation();
  const kind = facts.kinds.find((one) => one.kind === brief.piece.kind);
  return (
    <section className="space-y-3">
      <KindSelect
        label={t("make_up.kind")}
        facts={facts}
        value={brief.piece.kind ?? ""}
        onChoose={(chosen) => edit([], asKind(brief, facts, chosen))}
      />
      <ChoiceFields
        choices={kind?.choices ?? []}
        value={brief.piece}
        at="piece"
        problems={problems}
        unit={brief.unit ?? "mm"}
        onSet={(name, value) => edit(["piece", name], value)}
      />
    </section>
  );
}

type Kind = Facts["kinds"][number];

/** What a choice of kind or preset begins with: its piece and wire as typed, and its kind. */
export function startOf(facts: Facts, chosen: string) {
  const kind = facts.kinds.find((one) => one.kind === chosen);
  if (kind) return { kind, says: kind.says, piece: { kind: chosen }, wire: kind.usual_wire };
  for (const of of facts.kinds) {
    const preset = of.presets.find((one) => one.name === chosen);
    if (!preset) continue;
    const piece = { ...preset.piece, kind: of.kind };
    return { kind: of, says: preset.says, piece, wire: preset.wire };
  }
  return undefined;
}

/** Every wire that something begins with: as long as one of these stands, none was chosen. */
function usualWires(kind: Kind | undefined): Brief["wire"][] {
  return kind ? [kind.usual_wire, ...kind.presets.map((one) => one.wire)] : [];
}

/** A brief for another kind of piece, whose own wire it takes as long as none was chosen. */
export function asKind(brief: Brief, facts: Facts, chosen: string): Brief {
  const start = startOf(facts, chosen);
  if (!start) return brief;
  const before = usualWires(facts.kinds.find((one) => one.kind === brief.piece.kind));
  const untouched = before.some(
    (usual) =>
      usual.size === brief.wire.size &&
      usual.metal === brief.wire.metal &&
      usual.temper === brief.wire.temper,
  );
  return {
    ...brief,
    piece: start.piece,
    wire: {
      ...brief.wire,
      ...(untouched && start.wire),
      section: start.kind.any_section ? brief.wire.section : null,
    },
  };
}

interface KindProps {
  label: string;
  facts: Facts;
  value: string;
  onChoose: (kind: string) => void;
  className?: string;
}

/** All constructions, family by family. */
export function KindSelect({ label, facts, value, onChoose, className = "" }: KindProps) {
  const order = [...new Set(facts.kinds.map((kind) => kind.family))];
  const kinds = order.flatMap((family) =>
    facts.kinds
      .filter((kind) => kind.family === family)
      .flatMap((kind) => [
        { value: kind.kind, label: kind.says, group: family },
        ...kind.presets.map((one) => ({ value: one.name, label: one.says, group: family })),
      ]),
  );
  return (
    <Select label={label} className={className} value={value} options={kinds} onChoose={onChoose} />
  );
}
