import type { DrawnContour, ShapePaint } from '#core/drawing/drawing.ts';
import type { ClipArea } from '#core/drawing/svg/svgClip.ts';
import { needsFile, paintOf, shownFill, shownStroke } from '#core/drawing/svg/svgPaint.ts';
import type { UserFrame } from '#core/drawing/svg/svgShape.ts';
import { INITIAL_STYLE, type SvgStyle } from '#core/drawing/svg/svgStyle.ts';
import { localName, type XmlElement } from '#core/drawing/svg/xmlTree.ts';
import type { Affine } from '#core/geometry/affine.ts';

/** What an element passes on to those within it. */
export interface Frame {
  readonly affine: Affine;
  readonly style: SvgStyle;
  readonly layer: string | null;
  readonly viewport: UserFrame;
  /** The `use` elements it is drawn by, the outermost first. */
  readonly uses: readonly XmlElement[];
  /** What it is seen through; `null` for everything. */
  readonly clip: ClipArea | null;
  /** Within something of no opacity. */
  readonly isClear: boolean;
  /** Within something half clear, clipped, masked, filtered or blended. */
  readonly isFaded: boolean;
}

/** How the lines of a frame look. */
export interface Looks extends Pick<DrawnContour, 'fillColour' | 'strokeColour' | 'strokeWidthMm'> {
  readonly isPainted: boolean;
  /** Whether the colour a line goes by is that of a gradient or a pattern. */
  readonly isServed: boolean;
  readonly paint: ShapePaint;
  readonly needsFile: boolean;
}

/** Before any frame was looked at. */
export const NO_LOOKS: Looks = {
  isPainted: false,
  isServed: false,
  fillColour: null,
  strokeColour: null,
  strokeWidthMm: null,
  paint: INITIAL_STYLE.pen,
  needsFile: false,
};

/**
 * How lines drawn in a frame look.
 *
 * @example looksOf({ affine: [1, 0, 0, 1, 0, 0], style: INITIAL_STYLE, layer: null, viewport: { width: 1, height: 1 }, uses: [], clip: null, isClear: true, isFaded: false }).isPainted // false
 */
export function looksOf({ style, affine, isClear, isFaded }: Frame): Looks {
  const fillColour = isClear ? null : shownFill(style);
  const strokeColour = isClear ? null : shownStroke(style);
  const scale = scaleOf(affine);
  return {
    isPainted: fillColour !== null || strokeColour !== null,
    isServed: strokeColour !== null ? style.isStrokeServed : style.isFillServed,
    fillColour,
    strokeColour,
    strokeWidthMm: strokeColour === null ? null : style.strokeWidth * scale,
    paint: paintOf(style, scale),
    needsFile: isFaded || needsFile(style, affine),
  };
}

/** By how much a map enlarges lengths, on average over all directions. */
function scaleOf(affine: Affine): number {
  return Math.sqrt(Math.abs(affine[0] * affine[3] - affine[1] * affine[2]));
}

/**
 * What a group is called: its label, a name of its own, or its id; `null` for none.
 *
 * @example layerName({ id: 'Cut lines' }) // 'Cut lines'
 */
export function layerName(attributes: Readonly<Record<string, string>>): string | null {
  let name = attributes['data-name'] ?? attributes['id'];
  for (const key in attributes) if (localName(key) === 'label') name = attributes[key] || name;
  return name ? name.slice(0, 80) : null;
}

/**
 * Characters that are read anew each time an element is drawn; its path is counted by its segments.
 *
 * @example charactersOf({ class: 'cut', d: 'M0 0H9' }) // 3
 */
export function charactersOf(attributes: XmlElement['attributes']): number {
  const { style, transform, class: names, href, 'xlink:href': link } = attributes;
  let sum = style === undefined ? 0 : style.length;
  if (transform !== undefined) sum += transform.length;
  if (names !== undefined) sum += names.length;
  if (href !== undefined) sum += href.length;
  return link === undefined ? sum : sum + link.length;
}
