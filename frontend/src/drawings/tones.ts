/** What a bead, or what is bought, is filled with; wire takes its metal's own colour. */
export const TONES: Record<string, string> = {
  reed: "var(--color-reed)",
  slate: "var(--color-slate)",
  amber: "var(--color-amber)",
  brick: "var(--color-brick)",
  plum: "var(--color-plum)",
  chalk: "var(--color-chalk)",
  ink: "var(--color-inkbead)",
  bought: "var(--color-bought)",
};
