import { useId } from "react";

interface Props {
  label: string;
  labelHidden?: boolean;
  value: string;
  options: { value: string; label: string; group?: string }[];
  onChoose: (value: string) => void;
  className?: string;
}

/** A native list to choose from: it works the same under a finger and from the keyboard. */
export function Select({
  label,
  labelHidden = false,
  value,
  options,
  onChoose,
  className = "",
}: Props) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className={labelHidden ? "sr-only" : "mb-1 block font-semibold"}>
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={value}
        onChange={(event) => onChoose(event.target.value)}
      >
        {grouped(options).map(([group, members]) =>
          group === undefined ? (
            members.map(asOption)
          ) : (
            <optgroup key={group} label={group}>
              {members.map(asOption)}
            </optgroup>
          ),
        )}
      </select>
    </div>
  );
}

type Option = Props["options"][number];

function asOption(option: Option) {
  return (
    <option key={option.value} value={option.value}>
      {option.label}
    </option>
  );
}

function grouped(options: Option[]): [string | undefined, Option[]][] {
  const names = [...new Set(options.map((option) => option.group))];
  return names.map((name) => [name, options.filter((option) => option.group === name)]);
}
