import { useTranslation } from "react-i18next";
import type { Brief } from "../../api/client";
import { asText } from "../draft";
import { Button } from "../../shared/Button";
import { Select } from "../../shared/Select";
import { Problem, TextField } from "../../shared/TextField";
import { problemAt, type StationProps } from "../context";
import { TEMPERS } from "../WireFields";

const ROLES = ["string", "winding", "rings", "closure"] as const;
type Wire = Brief["wire"];

/** The wires of other roles: each takes the body's until it is given one of its own. */
export function PaletteChoice(props: StationProps) {
  const { brief, edit } = props;
  const { t } = useTranslation();
  const palette = brief.palette ?? {};
  const own = palette.own ?? {};
  const set = (path: string[], wire: Wire | undefined) => edit(["palette", ...path], wire);
  const add = () => {
    const n = Object.keys(own).length + 1;
    edit(["palette", "own", `wire ${n}`], { ...brief.wire, section: null });
  };
  return (
    <section aria-labelledby="palette" className="border-t hairline pt-2">
      <h2 id="palette" className="text-lead">
        {t("palette.title")}
      </h2>
      <p className="text-small leading-snug text-muted">{t("palette.what")}</p>
      <ul>
        {ROLES.map((role) => (
          <RoleRow
            key={role}
            {...props}
            name={t(`palette.role.${role}`)}
            at={`palette.${role}`}
            wire={palette[role] ?? undefined}
            onWire={(wire) => set([role], wire)}
          />
        ))}
        {Object.entries(own).map(([name, wire]) => (
          <RoleRow
            key={name}
            {...props}
            name={name}
            at={`palette.own.${name}`}
            wire={wire}
            onWire={(next) => {
              const left = Object.fromEntries(Object.entries(own).filter(([one]) => one !== name));
              edit(["palette", "own"], next ? { ...left, [name]: next } : left);
            }}
          />
        ))}
      </ul>
      <Button className="mt-2" disabled={Object.keys(own).length >= 8} onClick={add}>
        {t("palette.add")}
      </Button>
    </section>
  );
}

interface RowProps extends StationProps {
  name: string;
  at: string;
  wire: Wire | undefined;
  onWire: (wire: Wire | undefined) => void;
}

/** One role: the body's wire, or one of its own with size, metal and temper. */
function RoleRow({ name, at, wire, onWire, brief, facts, problems }: RowProps) {
  const { t } = useTranslation();
  const part = (key: keyof Wire, value: string) => onWire({ ...(wire as Wire), [key]: value });
  return (
    <li className="border-b hairline py-2">
      <div className="flex items-center justify-between gap-2">
        <span className="font-semibold first-letter:uppercase">{name}</span>
        <Button
          look="quiet"
          onClick={() => onWire(wire ? undefined : { ...brief.wire, section: null })}
        >
          {t(wire ? "palette.as_body" : "palette.own")}
        </Button>
      </div>
      {wire && (
        <div className="grid grid-cols-3 gap-2">
          <TextField
            label={t("make_up.wire")}
            className="[&_input]:figures"
            value={asText(wire.size)}
            problem={problemAt(problems, `${at}.size`, true)}
            onText={(size) => part("size", size)}
          />
          <Select
            label={t("make_up.metal")}
            value={wire.metal ?? "copper"}
            options={facts.metals
              .filter(({ cord }) => !cord)
              .map((metal) => ({ value: metal.id, label: metal.name }))}
            onChoose={(metal) => part("metal", metal)}
          />
          <Select
            label={t("make_up.temper")}
            value={wire.temper ?? "half_hard"}
            options={TEMPERS.map((value) => ({ value, label: t(`temper.${value}`) }))}
            onChoose={(temper) => part("temper", temper)}
          />
        </div>
      )}
      <Problem says={problemAt(problems, at)} />
    </li>
  );
}
