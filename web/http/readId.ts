/** The number in the address of a page; 0, which nothing has, for what is none. */
export function readId(text: string | undefined): number {
  return /^[1-9]\d{0,9}$/.test(text ?? '') ? Number(text) : 0;
}
