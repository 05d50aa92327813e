/**
 * Attributes as they stand in an opening tag, each after a blank.
 *
 * @example writeAttributes({ id: 'a', 'data-name': 'b & c' }) // ' id="a" data-name="b &amp; c"'
 */
export function writeAttributes(attributes: Readonly<Record<string, string>>): string {
  return Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escapeXml(value)}"`)
    .join('');
}

/**
 * A value as it may stand between quotes.
 *
 * @example escapeXml('a < "b"') // 'a &lt; &quot;b&quot;'
 */
export function escapeXml(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
}
