/** Elements whose content is not drawn where it stands. */
export const UNDRAWN: ReadonlySet<string> = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'metadata',
  'style',
  'title',
  'desc',
]);
/** Elements that carry a picture which is not taken over, in words. */
export const LEFT_OUT: Readonly<Record<string, string>> = {
  text: 'text (turn it into outlines first)',
  foreignObject: 'embedded pages',
};
/** What is said of words that stay text. */
export const UNKNOWN_FONT =
  'a font that is not known here (add it under Type words, or turn it into outlines first)';
