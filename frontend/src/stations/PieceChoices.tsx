import { useTranslation } from "react-i18next";
import type { Brief, Facts } from "../api/client";
import { useUnit } from "../hooks/useUnit";
import { asked } from "../logic/asked";
import { asNumber, asText } from "../logic/draft";
import { typedLength } from "../logic/length";
import { Select } from "../ui/Select";
import { TextField } from "../ui/TextField";
import { problemAt, type StationProps } from "./context";

type Choice = Facts["kinds"][number]["choices"][number];
/** A construction's own choices, by name, as typed. */
type Typed = Record<string, unknown>;

/** Which construction, and its own choices: asked from what the construction declares. */
export function PieceChoices(props: StationProps) {
  const { brief, facts, edit } = props;
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
      <div className="grid grid-cols-2 gap-3">
        {asked(kind?.choices ?? [], brief.piece as Typed).map((choice) => (
          <OneChoice key={choice.name} choice={choice} {...props} />
        ))}
      </div>
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
    if (preset) return { kind: of, says: preset.says, piece: preset.piece, wire: preset.wire };
  }
  return undefined;
}

/** Every wire that something begins with: as long as one of these stands, none was chosen. */
function usualWires(kind: Kind | undefined): Record<string, string>[] {
  return kind ? [kind.usual_wire, ...kind.presets.map((one) => one.wire)] : [];
}

/** A brief for another kind of piece, whose own wire it takes as long as none was chosen. */
export function asKind(brief: Brief, facts: Facts, chosen: string): Brief {
  const start = startOf(facts, chosen);
  if (!start) return brief;
  const before = usualWires(facts.kinds.find((one) => one.kind === brief.piece.kind));
  const untouched = before.some((usual) =>
    Object.entries(usual).every(([name, value]) => brief.wire[name as "metal"] === value),
  );
  return {
    ...brief,
    piece: start.piece as Brief["piece"],
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

function OneChoice({ choice, brief, problems, edit }: StationProps & { choice: Choice }) {
  const { t } = useTranslation();
  const shown = useUnit();
  const typed = (brief.piece as Typed)[choice.name];
  const label = t(`piece_choice.${choice.name}`, { defaultValue: choice.says });
  const set = (value: unknown) => edit(["piece", choice.name], value);
  if (choice.type === "option") {
    return (
      <Select
        label={label}
        value={asText(typed ?? choice.default)}
        options={(choice.options ?? []).map((value, i) => ({
          value,
          label: t(`option.${choice.name}.${value}`, { defaultValue: choice.labels?.[i] ?? value }),
        }))}
        onChoose={set}
      />
    );
  }
  if (choice.type === "flag") {
    return (
      <label className="flex min-h-[44px] items-center gap-3 self-end font-semibold">
        <input
          type="checkbox"
          className="size-6 accent-accent"
          checked={Boolean(typed ?? choice.default)}
          onChange={(event) => set(event.target.checked)}
        />
        {label}
      </label>
    );
  }
  const length = choice.type === "length";
  const write = (value: unknown) =>
    length ? typedLength(value, brief.unit ?? "mm") : asText(value);
  return (
    <TextField
      label={label}
      inputMode="decimal"
      className="[&_input]:figures"
      placeholder={write(choice.default)}
      suffix={length && (brief.unit ?? "mm") !== shown ? (brief.unit ?? "mm") : undefined}
      value={write(typed)}
      problem={problemAt(problems, `piece.${choice.name}`)}
      onText={(text) => set(length ? text : asNumber(text))}
    />
  );
}
