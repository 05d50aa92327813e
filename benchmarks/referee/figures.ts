/** A share as tables show it: .952. */
export function share(value: number): string {
  return value.toFixed(3).replace(/^0/, '');
}

/** The same where there may be none. */
export function shareOr(value: number | null): string {
  return value === null ? '–' : share(value);
}
