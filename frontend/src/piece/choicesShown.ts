/** Which of its choices a part, closure or piece is asked: what matters with what is chosen. */

interface Choice {
  name: string;
  default: unknown;
  if_field?: string;
  if_values?: readonly string[];
  first?: boolean;
}

/**
 * The choices that are shown first, as their kind says, and the others; all, where it names none of
 * these. What matters because of what was chosen among the first is shown with them. Where one of the others is chosen otherwise
 * than usual, or is wrong, they are ``open``.
 */
export function inTwo<T extends Choice>(
  choices: readonly T[],
  value: Record<string, unknown>,
  isWrong: (choice: T) => boolean,
): { first: T[]; more: T[]; open: boolean } {
  const chosen = (one: T) => {
    const now = value[one.name] ?? one.default;
    return now !== "" && String(now) !== String(one.default);
  };
  const leads = choices.filter((one) => one.first && chosen(one)).map((one) => one.name);
  const named = choices.filter((one) => one.first || leads.includes(one.if_field ?? ""));
  const shown = named.length > 0 ? named : [...choices];
  const more = choices.filter((one) => !shown.includes(one));
  return { first: shown, more, open: more.some((one) => chosen(one) || isWrong(one)) };
}

/** The choices that matter now; what hangs on one that is not asked itself does not matter. */
export function choicesShown<T extends Choice>(
  choices: readonly T[],
  value: Record<string, unknown>,
): T[] {
  const byName = new Map(choices.map((one) => [one.name, one]));
  const matters = (one: T): boolean => {
    if (!one.if_field) return true;
    const on = byName.get(one.if_field);
    if (!on) return true;
    const now = value[on.name] ?? on.default;
    const values = one.if_values ?? [];
    const fits = values.length > 0 ? values.includes(String(now)) : Boolean(Number(now));
    return fits && matters(on);
  };
  return choices.filter(matters);
}
