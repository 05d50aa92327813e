import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { AppError } from '#core/errors/appError.ts';
import type { DrawnContour, Drawing } from '#core/drawing/drawing.ts';
import { readSvgShape, SHAPES } from '#core/drawing/svgShape.ts';
import { inheritStyle, INITIAL_STYLE, type SvgStyle } from '#core/drawing/svgStyle.ts';
import { readSvgTransform } from '#core/drawing/svgTransform.ts';
import { readSvgViewport, type SvgViewport } from '#core/drawing/svgViewport.ts';
import { composeAffine, IDENTITY, mapContour, type Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { CLOSES_WITHIN_MM } from '#core/geometry/tolerances.ts';

/** Largest file taken, in characters. */
export const MAX_SVG_LENGTH = 5_000_000;
const MAX_CONTOURS = 20_000;
const MAX_DEPTH = 200;
/** Elements whose content is not drawn where it stands. */
const UNDRAWN: ReadonlySet<string> = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'metadata',
]);
/** Elements that carry a picture which is not taken over, in words. */
const LEFT_OUT: Readonly<Record<string, string>> = {
  text: 'text (turn it into outlines first)',
  image: 'pictures',
  use: 'reused symbols',
  foreignObject: 'embedded pages',
  style: 'style sheets (colours set by class)',
  svg: 'nested drawings',
};

/**
 * Reads an SVG drawing into contours in mm: paths, basic shapes, groups, transforms, units and viewBox. Layers are
 * named groups. Nothing outside the file is ever fetched and entities are refused.
 *
 * @param text the whole file
 * @throws AppError `badDrawing` with line and reason: not XML, not SVG, entities, no size, no lines, a number that is
 *   not finite; `tooLarge` above 5 million characters or 20,000 lines
 * @example readSvg('<svg width="10mm" height="10mm" viewBox="0 0 10 10"><path d="M1 1H9"/></svg>').contours.length // 1
 */
export function readSvg(text: string): Drawing {
  if (text.length > MAX_SVG_LENGTH) {
    throw new AppError(
      'tooLarge',
      `the drawing has ${text.length} characters; at most ${MAX_SVG_LENGTH} are read`,
    );
  }
  const reader = new SvgReader();
  const parser = new SaxesParser();
  const guard = (step: () => void) => refuseWithLine(parser, step);
  parser.on('error', (error) => {
    throw new AppError('badDrawing', `this is not well-formed XML: ${error.message}`);
  });
  parser.on('doctype', (doctype) => guard(() => refuseEntities(doctype)));
  parser.on('opentag', (tag) => guard(() => reader.open(tag)));
  parser.on('closetag', () => reader.close());
  parser.write(text).close();
  return reader.finish();
}

function refuseWithLine(parser: SaxesParser, step: () => void): void {
  try {
    step();
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    throw new AppError(error.code, `line ${parser.line}: ${error.message}`, error.details);
  }
}

function refuseEntities(doctype: string): void {
  if (/<!ENTITY/i.test(doctype))
    throw new AppError('badDrawing', 'the file defines entities; they are not read');
}

interface Frame {
  readonly affine: Affine;
  readonly style: SvgStyle;
  readonly layer: string | null;
  readonly isDrawn: boolean;
}

/** Walks the elements with a stack of what each inherits. */
class SvgReader {
  private readonly frames: Frame[] = [];
  private readonly contours: DrawnContour[] = [];
  private readonly leftOut = new Set<string>();
  private viewport: SvgViewport | null = null;

  open(tag: SaxesTagPlain): void {
    const name = localName(tag.name);
    const attributes = tag.attributes;
    if (!this.viewport) {
      if (name !== 'svg')
        throw new AppError('badDrawing', `the file starts with <${name}>; an SVG starts with <svg>`);
      this.viewport = readSvgViewport(attributes);
      this.frames.push({
        affine: this.viewport.toMm,
        style: inheritStyle(INITIAL_STYLE, attributes),
        layer: null,
        isDrawn: true,
      });
      return;
    }
    if (this.frames.length > MAX_DEPTH)
      throw new AppError('badDrawing', `groups are nested deeper than ${MAX_DEPTH}`);
    const frame = this.inherit(name, attributes);
    this.frames.push(frame);
    if (frame.isDrawn && !frame.style.isHidden && SHAPES.has(name))
      this.draw(readSvgShape(name, attributes), frame);
  }

  close(): void {
    this.frames.pop();
  }

  finish(): Drawing {
    if (!this.viewport) throw new AppError('badDrawing', 'the file is empty');
    if (this.contours.length === 0) {
      const seen = [...this.leftOut].join(', ');
      throw new AppError(
        'badDrawing',
        `the drawing has no lines to cut${seen ? `; it holds only ${seen}` : ''}`,
      );
    }
    const { widthMm, heightMm } = this.viewport;
    return { widthMm, heightMm, contours: this.contours, leftOut: [...this.leftOut] };
  }

  private inherit(name: string, attributes: Readonly<Record<string, string>>): Frame {
    const parent = this.frames.at(-1) as Frame;
    const transform = attributes['transform'];
    const words = LEFT_OUT[name];
    if (words && parent.isDrawn) this.leftOut.add(words);
    return {
      affine: composeAffine(parent.affine, transform ? readSvgTransform(transform) : IDENTITY),
      style: inheritStyle(parent.style, attributes),
      layer: name === 'g' ? (layerName(attributes) ?? parent.layer) : parent.layer,
      isDrawn: parent.isDrawn && !UNDRAWN.has(name) && !words,
    };
  }

  private draw(contours: readonly Contour[], frame: Frame): void {
    for (const contour of contours) {
      if (this.contours.length >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the drawing has more than ${MAX_CONTOURS} lines`);
      }
      this.contours.push({
        id: this.contours.length,
        contour: closeWhereEndsMeet(requireFinite(mapContour(frame.affine, contour))),
        layer: frame.layer,
        strokeColour: frame.style.stroke,
        fillColour: frame.style.fill,
      });
    }
  }
}

function requireFinite(contour: Contour): Contour {
  for (const segment of contour.segments) {
    const { from, to } = segment;
    const sum = from.x + from.y + to.x + to.y;
    if (!Number.isFinite(sum) || Math.abs(sum) > 1e9) {
      throw new AppError(
        'badDrawing',
        'a line runs to where no sheet is: a number is not finite or far too large',
      );
    }
  }
  return contour;
}

/** Drawings often end an outline on its start without the close command. */
function closeWhereEndsMeet(contour: Contour): Contour {
  const first = contour.segments[0];
  const last = contour.segments.at(-1);
  if (contour.isClosed || !first || !last || contour.segments.length < 2) return contour;
  return distanceMm(first.from, last.to) <= CLOSES_WITHIN_MM ? { ...contour, isClosed: true } : contour;
}

function layerName(attributes: Readonly<Record<string, string>>): string | null {
  const label = Object.keys(attributes).find((name) => localName(name) === 'label');
  const name = (label && attributes[label]) ?? attributes['data-name'] ?? attributes['id'];
  return name ? name.slice(0, 80) : null;
}

function localName(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}
