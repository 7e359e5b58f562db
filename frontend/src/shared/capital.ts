/** A word of the catalogue as the label of a field: the core writes them small, as in sentences. */
export function capital(text: string): string {
  return text.charAt(0).toLocaleUpperCase() + text.slice(1);
}
