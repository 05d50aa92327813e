import {
  FURTHEST_MM,
  MAX_CONTOURS,
  type DrawnContour,
  type DrawnImage,
  type ReadProgress,
} from '#core/drawing/drawing.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { readCoordinate, readSvgShape, SHAPES, type UserFrame } from '#core/drawing/svg/svgShape.ts';
import { inheritStyle, INITIAL_STYLE, isUndisplayed, type SvgStyle } from '#core/drawing/svg/svgStyle.ts';
import {
  matchRules,
  NO_STYLE_SHEET,
  readStyleSheet,
  type StyleSheet,
} from '#core/drawing/svg/svgStyleSheet.ts';
import { readSvgTransform } from '#core/drawing/svg/svgTransform.ts';
import { readInnerViewport, readViewBox } from '#core/drawing/svg/svgViewport.ts';
import { localName, type XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';

/** Elements whose content is not drawn where it stands. */
const UNDRAWN: ReadonlySet<string> = new Set([
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
const LEFT_OUT: Readonly<Record<string, string>> = {
  text: 'text (turn it into outlines first)',
  foreignObject: 'embedded pages',
};
/** Symbols may stand in symbols this deep. */
const MAX_REUSE = 24;
/** Characters of styles, transforms and pictures that are read in the time of a step. */
const CHARACTERS_A_STEP = 8;
const MAX_PICTURES = 1000;
const PICTURE = /^data:image\/(png|jpeg);base64,[a-z0-9+/=\s]+$/i;

interface Frame {
  readonly affine: Affine;
  readonly style: SvgStyle;
  readonly layer: string | null;
  readonly viewport: UserFrame;
  /** How many symbols lie around. */
  readonly reuse: number;
}

/**
 * Draws elements with what each inherits: as they come, or from a tree where symbols are reused or style sheets may
 * stand at the end.
 */
export class SvgWalker {
  readonly contours: DrawnContour[] = [];
  readonly images: DrawnImage[] = [];
  readonly leftOut = new Set<string>();
  private readonly byId = new Map<string, XmlElement>();
  private sheet: StyleSheet = NO_STYLE_SHEET;
  private shapes = 0;
  private visited = 0;
  /** What the open elements pass on; `null` for those whose content is not drawn. */
  private readonly open_: (Frame | null)[] = [];

  private readonly budget = new ReadBudget();

  constructor(private readonly toMm: Affine) {}

  /** An element begins. @throws AppError `badDrawing` with the line, `tooLarge` */
  open(element: XmlElement): void {
    const parent = this.open_.length === 0 ? undefined : (this.open_.at(-1) as Frame | null);
    this.open_.push(parent === undefined ? this.begin(element) : parent && this.enter(element, parent));
  }

  close(): void {
    this.open_.pop();
  }

  /** The whole drawing from its root. @throws AppError `badDrawing` with the line, `tooLarge` */
  walk(root: XmlElement, onProgress: ReadProgress): void {
    const css: string[] = [];
    const total = this.index(root, css);
    if (css.length > 0) this.sheet = readStyleSheet(css.join('\n'), this.budget);
    if (this.sheet.unread > 0) this.leftOut.add('style rules that look at neighbours or states');
    const frame = this.begin(root);
    root.children.forEach((child, index) => {
      this.visit(child, frame);
      if (index % 500 === 0) onProgress(Math.min(1, this.visited / total));
    });
  }

  private begin({ name, attributes }: XmlElement): Frame {
    const viewport = readViewBox(attributes['viewBox']) ?? {
      width: readCoordinate(attributes['width'], 0),
      height: readCoordinate(attributes['height'], 0),
    };
    const style = inheritStyle(
      INITIAL_STYLE,
      attributes,
      matchRules(this.sheet, name, attributes, this.budget),
    );
    return { affine: this.toMm, style, layer: null, viewport, reuse: 0 };
  }

  /** @returns how many elements there are */
  private index(element: XmlElement, css: string[]): number {
    const id = element.attributes['id'];
    if (id !== undefined && !this.byId.has(id)) this.byId.set(id, element);
    if (element.name === 'style') css.push(element.text);
    return element.children.reduce((sum, child) => sum + this.index(child, css), 1);
  }

  private visit(element: XmlElement, parent: Frame): void {
    const frame = this.enter(element, parent);
    if (frame) for (const child of element.children) this.visit(child, frame);
  }

  /** Draws an element. @returns what its children inherit, or `null` when they are not drawn */
  private enter(element: XmlElement, parent: Frame): Frame | null {
    this.visited++;
    const { name, attributes } = element;
    this.budget.spend(STEPS.element + lengthOf(attributes) / CHARACTERS_A_STEP);
    const isShape = SHAPES.has(name);
    if (!isShape && UNDRAWN.has(name)) return null;
    const ruled = matchRules(this.sheet, name, attributes, this.budget);
    if (isUndisplayed(attributes, ruled)) return null;
    const words = isShape ? undefined : LEFT_OUT[name];
    if (words) {
      this.leftOut.add(words);
      return null;
    }
    try {
      const frame = this.inherit(element, parent, ruled);
      if (isShape) this.draw(element, frame);
      else if (name === 'use') this.reuse(element, frame);
      else if (name === 'image') this.picture(element, frame);
      else return name === 'svg' ? this.nest(element, frame, element) : frame;
      return null;
    } catch (error) {
      if (!(error instanceof AppError) || /^line \d/.test(error.message)) throw error;
      throw new AppError(error.code, `line ${element.line}: ${error.message}`, error.details);
    }
  }

  private inherit(
    { name, attributes }: XmlElement,
    parent: Frame,
    ruled: ReturnType<typeof matchRules>,
  ): Frame {
    const style = inheritStyle(parent.style, attributes, ruled);
    const transform = attributes['transform'];
    const named = name === 'g' ? layerName(attributes) : null;
    if ((attributes['clip-path'] ?? 'none') !== 'none') {
      this.leftOut.add('clipping (lines are taken whole)');
    }
    if (style === parent.style && !transform && !named) return parent;
    return {
      ...parent,
      style,
      affine: transform ? composeAffine(parent.affine, readSvgTransform(transform)) : parent.affine,
      layer: named ?? parent.layer,
    };
  }

  private draw({ name, attributes }: XmlElement, frame: Frame): void {
    if (frame.style.isInvisible) return;
    const shape = this.shapes++;
    const { stroke, fill, dash, strokeWidth } = frame.style;
    const strokeWidthMm = stroke === null ? null : strokeWidth * scaleOf(frame.affine);
    for (const contour of readSvgShape(name, attributes, frame.affine, frame.viewport, this.budget)) {
      if (this.contours.length >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the drawing has more than ${MAX_CONTOURS} lines`);
      }
      this.contours.push({
        id: this.contours.length,
        contour,
        layer: frame.layer,
        strokeColour: stroke,
        strokeWidthMm,
        fillColour: fill,
        dash,
        shape,
      });
    }
  }

  private reuse({ attributes }: XmlElement, frame: Frame): void {
    const address = attributes['href'] ?? attributes['xlink:href'] ?? '';
    const target = this.byId.get(address.slice(1));
    if (!address.startsWith('#') || !target) {
      this.leftOut.add('reused symbols that are not in the file');
      return;
    }
    if (frame.reuse >= MAX_REUSE)
      throw new AppError('badDrawing', `symbol "${address}" stands within itself`);
    this.budget.spend(STEPS.reuse);
    const x = readCoordinate(attributes['x'], frame.viewport.width);
    const y = readCoordinate(attributes['y'], frame.viewport.height);
    const inner = {
      ...frame,
      affine: composeAffine(frame.affine, [1, 0, 0, 1, x, y]),
      reuse: frame.reuse + 1,
    };
    if (target.name !== 'symbol' && target.name !== 'svg') return this.visit(target, inner);
    const style = inheritStyle(
      inner.style,
      target.attributes,
      matchRules(this.sheet, target.name, target.attributes, this.budget),
    );
    const sized = { ...target.attributes, ...pick(attributes, ['width', 'height']) };
    const nested = this.nest({ ...target, attributes: sized }, { ...inner, style }, target);
    for (const child of target.children) this.visit(child, nested);
  }

  private nest({ attributes }: XmlElement, frame: Frame, { name }: XmlElement): Frame {
    const { width, height } = frame.viewport;
    const place = {
      x: name === 'symbol' ? 0 : readCoordinate(attributes['x'], width),
      y: name === 'symbol' ? 0 : readCoordinate(attributes['y'], height),
      width: readCoordinate(attributes['width'] ?? '100%', width),
      height: readCoordinate(attributes['height'] ?? '100%', height),
    };
    const affine = composeAffine(frame.affine, readInnerViewport(attributes, place));
    return { ...frame, affine, viewport: readViewBox(attributes['viewBox']) ?? place };
  }

  private picture({ attributes }: XmlElement, frame: Frame): void {
    const address = attributes['href'] ?? attributes['xlink:href'] ?? '';
    const { width, height } = frame.viewport;
    const wide = readCoordinate(attributes['width'], width);
    const tall = readCoordinate(attributes['height'], height);
    if (!PICTURE.test(address)) {
      this.leftOut.add('pictures outside the file, or neither PNG nor JPEG');
      return;
    }
    if (!(wide > 0 && tall > 0)) return;
    if (this.images.length >= MAX_PICTURES) {
      throw new AppError('tooLarge', `the drawing has more than ${MAX_PICTURES} pictures`);
    }
    const x = readCoordinate(attributes['x'], width);
    const y = readCoordinate(attributes['y'], height);
    const toMm = composeAffine(frame.affine, [wide, 0, 0, tall, x, y]);
    if (!toMm.every((one) => Math.abs(one) < FURTHEST_MM)) {
      throw new AppError(
        'badDrawing',
        'a picture lies where no sheet is: a number is not finite or far too large',
      );
    }
    this.images.push({ data: address.replace(/\s+/g, ''), toMm });
  }
}

/** Characters that are read anew each time an element is drawn; its path is counted by its segments. */
function lengthOf({
  style,
  transform,
  class: names,
  href,
  'xlink:href': link,
}: XmlElement['attributes']): number {
  const texts = [style, transform, names, href, link];
  return texts.reduce((sum, text) => sum + (text?.length ?? 0), 0);
}

/** By how much a map enlarges lengths, on average over all directions. */
function scaleOf(affine: Affine): number {
  return Math.sqrt(Math.abs(affine[0] * affine[3] - affine[1] * affine[2]));
}

function pick(
  attributes: Readonly<Record<string, string>>,
  names: readonly string[],
): Record<string, string> {
  return Object.fromEntries(names.flatMap((name) => (attributes[name] ? [[name, attributes[name]]] : [])));
}

function layerName(attributes: Readonly<Record<string, string>>): string | null {
  let name = attributes['data-name'] ?? attributes['id'];
  for (const key in attributes) if (localName(key) === 'label') name = attributes[key] || name;
  return name ? name.slice(0, 80) : null;
}
