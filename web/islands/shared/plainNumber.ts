/** A number as somebody typed it, with a point or a comma. @returns `null` for what is none */
export function plainNumber(text: string): number | null {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
}
