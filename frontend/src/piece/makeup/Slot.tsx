import { useTranslation } from "react-i18next";
import type { Facts } from "../../api/client";
import type { Part } from "../sequence";
import { Select } from "../../shared/Select";
import type { StationProps } from "../context";
import { PartFields } from "./PartFields";

interface Props extends StationProps {
  slot: "focal" | "hung";
  label: string;
  part: Part | null | undefined;
}

/** A place of its own for one part: the middle of a piece, or what hangs from it. */
export function Slot({ slot, label, part, ...props }: Props) {
  const { facts, edit } = props;
  const { t } = useTranslation();
  const set = (next: Part | null) => edit(["piece", slot], next);
  return (
    <section className="space-y-3">
      <Select
        label={label}
        value={part?.kind ?? ""}
        options={[
          { value: "", label: t("sequence.nothing") },
          ...facts.parts
            .filter((one) => (slot === "hung" ? hangs(one) : one.role !== "drop"))
            .map((one) => ({ value: one.kind, label: one.says })),
        ]}
        onChoose={(chosen) => set(atFirst(facts, slot, chosen))}
      />
      {part && <PartFields {...props} part={part} at={`piece.${slot}`} onPart={set} />}
    </section>
  );
}

/** A part as it begins there: what may lie or hang is asked to hang. */
function atFirst(facts: Facts, slot: Props["slot"], kind: string): Part | null {
  const one = facts.parts.find((each) => each.kind === kind);
  if (!one) return null;
  return slot === "hung" && one.role !== "drop" ? { kind, hangs: true } : { kind };
}

/** Whether a part hangs, or may be asked to. */
function hangs(part: Facts["parts"][number]): boolean {
  return part.role === "drop" || part.choices.some((choice) => choice.name === "hangs");
}
