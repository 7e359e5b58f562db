import { useId, type InputHTMLAttributes, type ReactNode } from "react";

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, "onChange"> {
  label: ReactNode;
  labelHidden?: boolean;
  hint?: ReactNode;
  problem?: string;
  suffix?: string;
  onText?: (text: string) => void;
}

/** A field with its label, what it means, and what is wrong with it. */
export function TextField({
  label,
  labelHidden = false,
  hint,
  problem,
  suffix,
  onText,
  className = "",
  ...rest
}: Props) {
  const id = useId();
  const described = [hint && `${id}-hint`, problem && `${id}-problem`].filter(Boolean).join(" ");
  return (
    <div className={className}>
      <label htmlFor={id} className={labelHidden ? "sr-only" : "mb-1 block font-semibold"}>
        {label}
      </label>
      <div className="relative">
        <input
          id={id}
          className={`field ${suffix ? "pr-12" : ""}`}
          aria-invalid={problem ? true : undefined}
          aria-describedby={described || undefined}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => onText?.(event.target.value)}
          {...rest}
        />
        {suffix && (
          <span className="pointer-events-none absolute top-0 right-3 leading-[44px] text-muted">
            {suffix}
          </span>
        )}
      </div>
      {hint && (
        <div id={`${id}-hint`} className="mt-1 text-small text-muted">
          {hint}
        </div>
      )}
      <Problem id={`${id}-problem`} says={problem} />
    </div>
  );
}

/** What is wrong, in a sentence, below the field it is about. */
export function Problem({ id, says }: { id?: string; says?: string }) {
  if (!says) return null;
  return (
    <p id={id} role="status" className="mt-1 border-l-[5px] border-ink pl-2 text-small font-medium">
      {says}
    </p>
  );
}
