import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { ShopTyped, Unit } from "../api/client";
import { asNumber, asText } from "../piece/draft";
import { keptLengths, typedLength, typedLengths } from "../shared/length";
import { asKindOfTool, shapeOf, TOOL_KINDS } from "./tools";
import { Button } from "../shared/Button";
import { Select } from "../shared/Select";
import { TextField } from "../shared/TextField";

type Tool = NonNullable<ShopTyped["formers"]>[number];

interface ListProps {
  list: "formers" | "pins";
  tools: readonly Tool[];
  unit: Unit;
  onChange: (path: (string | number)[], value: unknown) => void;
}

/** Tools of one use, each with what its kind asks for: steps, a taper, or nothing. */
export function ToolList({ list, tools, unit, onChange }: ListProps) {
  const { t } = useTranslation();
  const [gone, setGone] = useState<{ at: number; tool: Tool } | null>(null);
  return (
    <section>
      <h2 className="text-lead">{t(`tools.${list}`)}</h2>
      <p className="mb-2 text-small text-muted">
        {t(`tools.${list}_why`, { unit: t(`unit.${unit}`) })}
      </p>
      <ul className="space-y-3">
        {tools.map((tool, i) => (
          <li key={i} className="grid grid-cols-[1fr_1fr_auto] gap-2 border-b hairline pb-3">
            <TextField
              label={t("tools.name")}
              labelHidden
              value={tool.name}
              onText={(name) => onChange([list, i, "name"], name)}
            />
            <Select
              label={t("tools.kind")}
              labelHidden
              value={tool.kind}
              options={TOOL_KINDS.map((value) => ({
                value,
                label: t(`tool.${value.replace(" ", "_")}`),
              }))}
              onChoose={(kind) => onChange([list, i], asKindOfTool(tool, kind as Tool["kind"]))}
            />
            <Button
              aria-label={t("tools.remove", { name: tool.name })}
              onClick={() => {
                onChange(
                  [list],
                  tools.filter((_, k) => k !== i),
                );
                setGone({ at: i, tool });
              }}
            >
              {t("tools.remove_short")}
            </Button>
            {shapeOf(tool.kind) === "steps" && (
              <Steps
                tool={tool}
                unit={unit}
                onChange={(all) => onChange([list, i, "diameters"], all)}
              />
            )}
            {shapeOf(tool.kind) === "taper" && (
              <Taper
                tool={tool}
                unit={unit}
                onChange={(name, value) => onChange([list, i, name], value)}
              />
            )}
            {tool.kind.endsWith("mandrel") && (
              <Ratio tool={tool} onChange={(value) => onChange([list, i, "ratio"], value)} />
            )}
          </li>
        ))}
      </ul>
      {gone && (
        <p role="status" className="mt-2 flex items-center gap-3 border-l-4 border-ink pl-3">
          {t("tools.gone", { name: gone.tool.name })}
          <Button
            onClick={() => {
              onChange([list], tools.toSpliced(gone.at, 0, gone.tool));
              setGone(null);
            }}
          >
            {t("archive.undo")}
          </Button>
        </p>
      )}
      <Button
        className="mt-2"
        onClick={() =>
          onChange([list], [...tools, { name: t("tools.new"), kind: "household", diameters: [] }])
        }
      >
        {t(`tools.add_${list}`)}
      </Button>
    </section>
  );
}

interface StepsProps {
  tool: Tool;
  unit: Unit;
  onChange: (diameters: (string | number)[]) => void;
}

/** The diameters of a tool as one line; those that are not touched stay exactly what they were. */
function Steps({ tool, unit, onChange }: StepsProps) {
  const { t } = useTranslation();
  return (
    <Lengths
      className="col-span-3"
      label={t("tools.steps")}
      values={tool.diameters ?? []}
      unit={unit}
      onChange={onChange}
    />
  );
}

interface LengthsProps {
  label: string;
  labelHidden?: boolean;
  values: (string | number)[];
  unit: Unit;
  className?: string;
  onChange: (values: (string | number)[]) => void;
}

// A blank stands before a fraction too, so inches are parted by commas.
const STEPS_APART = { mm: "  ", in: ", " };

/** Several lengths in one field. */
export function Lengths({ label, values, unit, className = "", onChange, ...rest }: LengthsProps) {
  const [before] = useState(values);
  const [text, setText] = useState(() => typedLengths(before, unit).join(STEPS_APART[unit]));
  return (
    <TextField
      className={`${className} [&_input]:figures`}
      label={label}
      labelHidden={rest.labelHidden ?? true}
      suffix={unit}
      value={text}
      onText={(next) => {
        setText(next);
        onChange(keptLengths(next, before, unit));
      }}
    />
  );
}

interface TaperProps {
  tool: Tool;
  unit: Unit;
  onChange: (name: "tip" | "base" | "length", value: string) => void;
}

/** What tapers: thick at its tip, at its base, and how long between, so that it can be marked. */
function Taper({ tool, unit, onChange }: TaperProps) {
  const { t } = useTranslation();
  return (
    <div className="col-span-3 grid grid-cols-3 gap-2">
      {(["tip", "base", "length"] as const).map((name) => (
        <TextField
          key={name}
          label={t(name === "length" ? "tools.taper" : `tools.${name}`)}
          className="[&_input]:figures"
          inputMode="decimal"
          suffix={unit}
          value={typedLength(tool[name] ?? undefined, unit)}
          onText={(value) => onChange(name, value)}
        />
      ))}
    </div>
  );
}

interface RatioProps {
  tool: Tool;
  onChange: (ratio: unknown) => void;
}

/** How much broader than deep an oval mandrel is. */
function Ratio({ tool, onChange }: RatioProps) {
  const { t } = useTranslation();
  return (
    <TextField
      className="col-span-3 [&_input]:figures"
      label={t("tools.ratio")}
      hint={t("tools.ratio_why")}
      inputMode="decimal"
      placeholder="1"
      defaultValue={tool.ratio === undefined || tool.ratio === 1 ? "" : asText(tool.ratio)}
      onText={(text) => onChange(text.trim() === "" ? 1 : asNumber(text))}
    />
  );
}
