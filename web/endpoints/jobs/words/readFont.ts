import { create, type Font, type FontCollection } from 'fontkit';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';

/** @throws AppError `badDrawing` for what is no font, or a collection of several */
export function readFont(data: Buffer): Font {
  let opened: Font | FontCollection;
  try {
    opened = create(data);
  } catch (error) {
    throw new AppError(
      'badDrawing',
      `this is no font that is read (TTF, OTF, WOFF, WOFF2): ${String(error)}`,
    );
  }
  if ('layout' in opened) return opened;
  throw new AppError('badDrawing', 'this file holds several fonts; save the one that is wanted by itself');
}

/** Letters as a font sets them. */
export interface SetText {
  readonly contours: readonly Contour[];
  /** Characters that the font does not have. */
  readonly missing: readonly string[];
  /** How far the text goes, in the units of `toPlace`. */
  readonly advance: number;
}

/**
 * A line of text as outlines, kerned and joined as the font says.
 *
 * @param toPlace from units of an em, y upwards, to where the outlines lie
 */
export function setText(font: Font, text: string, toPlace: Affine): SetText {
  const { glyphs, positions } = font.layout(text);
  const [a, b, c, d, e, f] = toPlace;
  const perEm = 1 / font.unitsPerEm;
  let pen = 0;
  const contours = glyphs.flatMap((glyph, index) => {
    const { xAdvance = 0, xOffset = 0, yOffset = 0 } = positions[index] ?? {};
    const [x, y] = [(pen + xOffset) * perEm, yOffset * perEm];
    pen += xAdvance;
    const data = glyph.path.toSVG();
    if (data === '') return [];
    const map: Affine = [a * perEm, b * perEm, c * perEm, d * perEm, e + a * x + c * y, f + b * x + d * y];
    return readSvgPath(data, map);
  });
  const missing = [...new Set(text)].filter(
    (character) => character.trim() !== '' && !font.hasGlyphForCodePoint(character.codePointAt(0) ?? 0),
  );
  return { contours, missing, advance: pen * perEm };
}

/** How tall a capital is, in ems. */
export function capitalsOf(font: Font): number {
  return (font.capHeight || font.ascent * 0.7) / font.unitsPerEm;
}
