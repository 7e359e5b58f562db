/** What a bead, or what is bought, is filled with; wire takes its metal's own colour. */
const TONES: Record<string, string> = {
  reed: "var(--color-reed)",
  slate: "var(--color-slate)",
  amber: "var(--color-amber)",
  brick: "var(--color-brick)",
  plum: "var(--color-plum)",
  chalk: "var(--color-chalk)",
  ink: "var(--color-inkbead)",
  bought: "var(--color-bought)",
};

/** The colour of a tone: a bead's, that of what is bought, or of a metal that is not the body's. */
export function toneOf(tone: string | undefined): string | undefined {
  return tone?.startsWith("#") ? tone : TONES[tone ?? ""];
}
