import { useId } from "react";

interface Props {
  label: string;
  labelHidden?: boolean;
  value: string;
  options: { value: string; label: string }[];
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
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
