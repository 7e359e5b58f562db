import type { ButtonHTMLAttributes } from "react";

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: "plain" | "strong" | "quiet";
}

const LOOKS = {
  plain: "border hairline bg-panel hover:border-ink",
  strong: "border border-ink bg-ink text-on-ink hover:bg-accent hover:border-accent",
  quiet: "border border-transparent underline underline-offset-4 hover:decoration-2",
};

export const buttonLook = (look: keyof typeof LOOKS) =>
  `inline-flex min-h-[44px] items-center justify-center gap-2 rounded-sm px-4 font-medium disabled:opacity-45 disabled:cursor-default ${LOOKS[look]}`;

export function Button({ look = "plain", className = "", type = "button", ...rest }: Props) {
  return <button type={type} className={`${buttonLook(look)} ${className}`} {...rest} />;
}
