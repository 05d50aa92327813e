/** What draws a line or an area. */
const DRAWS = /<(?:\w+:)?(?:path|rect|circle|ellipse|line|polyline|polygon|use|text)\b/;
const PICTURE = /<(?:\w+:)?image\b[^>]*?\bhref\s*=\s*(["'])(data:image\/(?:png|jpeg);base64,[^"']+)\1/g;

/**
 * The picture of an SVG that holds one picture and draws nothing itself: it is cut around as any other picture is.
 *
 * @returns its data address, or `null` where there are lines, no picture, or several
 * @example pictureAlone('<svg><image href="data:image/png;base64,AAAA"/></svg>') // 'data:image/png;base64,AAAA'
 */
export function pictureAlone(svg: string): string | null {
  const pictures = [...svg.matchAll(PICTURE)];
  const [only] = pictures;
  if (!only || pictures.length > 1) return null;
  // The data itself is no markup, and long.
  const rest = svg.slice(0, only.index) + svg.slice(only.index + only[0].length);
  return DRAWS.test(rest) ? null : (only[2] as string).replace(/\s+/g, '');
}
