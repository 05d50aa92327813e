import {
  MAX_CONTOURS,
  type DrawnContour,
  type DrawnImage,
  type ReadProgress,
} from '#core/drawing/drawing.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { readCoordinate, readSvgShape, SHAPES } from '#core/drawing/svg/svgShape.ts';
import { LEFT_OUT, UNDRAWN, UNKNOWN_FONT } from '#core/drawing/svg/svgElements.ts';
import { SvgClips } from '#core/drawing/svg/svgClip.ts';
import {
  charactersOf,
  layerName,
  looksOf,
  NO_LOOKS,
  type Frame,
  type Looks,
} from '#core/drawing/svg/svgFrame.ts';
import {
  inheritStyle,
  INITIAL_STYLE,
  isUndisplayed,
  NO_EFFECTS,
  readEffects,
  SAYS,
  sayingsOf,
} from '#core/drawing/svg/svgStyle.ts';
import {
  matchRules,
  NO_STYLE_SHEET,
  readStyleSheet,
  type StyleSheet,
} from '#core/drawing/svg/svgStyleSheet.ts';
import { indexElements } from '#core/drawing/svg/indexElements.ts';
import { nestFrame } from '#core/drawing/svg/nestFrame.ts';
import { readSvgPicture } from '#core/drawing/svg/svgPicture.ts';
import { readSvgTransform } from '#core/drawing/svg/svgTransform.ts';
import { readViewBox } from '#core/drawing/svg/svgViewport.ts';
import type { XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';

/** Symbols may stand in symbols this deep. */
const MAX_REUSE = 24;
/** Characters of styles, transforms and pictures that are read in the time of a step. */
const CHARACTERS_A_STEP = 8;
const MAX_PICTURES = 1000;

/** Told of all that is drawn, in the order in which it is numbered. */
export interface DrawnListener {
  /** @param uses the `use` elements it is drawn by, the outermost first */
  readonly onShape: (shape: number, element: XmlElement, uses: readonly XmlElement[]) => void;
  readonly onPicture: (picture: number, element: XmlElement, uses: readonly XmlElement[]) => void;
}

/** What an element says of itself, and what rules say of it. */
interface OwnSayings {
  readonly ruled: ReturnType<typeof matchRules>;
  /** Bits of {@link SAYS}. */
  readonly sayings: number;
}

/**
 * Draws elements with what each inherits: as they come, or from a tree where symbols are reused or style sheets may
 * stand at the end.
 */
export class SvgWalker {
  readonly contours: DrawnContour[] = [];
  readonly images: DrawnImage[] = [];
  readonly leftOut = new Set<string>();
  /** Whether lines and colours alone do not tell how it looks. */
  isMoreThanLines = false;
  /** Line numbers given out, also to what is not drawn. */
  idsGiven = 0;
  /** Shapes that paint nothing, and lines that no clip shows. */
  unpainted = 0;
  clippedAway = 0;
  private readonly byId = new Map<string, XmlElement>();
  private sheet: StyleSheet = NO_STYLE_SHEET;
  private shapes = 0;
  private visited = 0;
  /** The frame that lines were last drawn in, and how they look there. */
  private looked: Frame | null = null;
  private looks: Looks = NO_LOOKS;
  private styledIn: Frame | null = null;
  private readonly byStyle = new Map<Frame['style'], Frame>();
  /** What the open elements pass on; `null` for those whose content is not drawn. */
  private readonly open_: (Frame | null)[] = [];

  private readonly budget = new ReadBudget();
  private readonly clips = new SvgClips(this.byId, this.budget);

  constructor(
    private readonly toMm: Affine,
    private readonly listener: DrawnListener | null = null,
  ) {}

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
    const { byId, css, count: total } = indexElements(root);
    byId.forEach((element, id) => this.byId.set(id, element));
    if (css !== '') this.sheet = readStyleSheet(css, this.budget);
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
    const { opacity, clip, isFiltered } = readEffects(attributes);
    const isFaded = opacity < 1 || clip !== null || isFiltered;
    const bare = { affine: this.toMm, style, layer: null, viewport, uses: [], clip: null };
    return { ...bare, isClear: opacity === 0, isFaded };
  }

  private visit(element: XmlElement, parent: Frame): void {
    const frame = this.enter(element, parent);
    if (frame) for (const child of element.children) this.visit(child, frame);
  }

  /** Draws an element. @returns what its children inherit, or `null` when they are not drawn */
  private enter(element: XmlElement, parent: Frame): Frame | null {
    this.visited++;
    const { name, attributes } = element;
    const isShape = SHAPES.has(name);
    const sayings = this.sheet.count === 0 ? sayingsOf(attributes) : ~0;
    if (isShape && sayings === 0) {
      this.budget.spend(STEPS.element);
      return this.drawn(element, parent);
    }
    this.budget.spend(STEPS.element + charactersOf(attributes) / CHARACTERS_A_STEP);
    if (!isShape && UNDRAWN.has(name)) return null;
    const ruled = matchRules(this.sheet, name, attributes, this.budget);
    if (sayings !== 0 && isUndisplayed(attributes, ruled)) return null;
    const words = isShape ? undefined : LEFT_OUT[name];
    if (words) {
      this.isMoreThanLines ||= name === 'text';
      const { family } = inheritStyle(parent.style, attributes, ruled);
      this.leftOut.add(name === 'text' && family ? `text in ${family}, ${UNKNOWN_FONT}` : words);
      return null;
    }
    return this.drawn(element, parent, { ruled, sayings });
  }

  /** @param own what it says of itself; left out for a shape that inherits all of its looks */
  private drawn(element: XmlElement, parent: Frame, own?: OwnSayings): Frame | null {
    const { name } = element;
    try {
      const frame = own ? this.inherit(element, parent, own) : parent;
      if (SHAPES.has(name)) this.draw(element, frame);
      else if (name === 'use') this.reuse(element, frame);
      else if (name === 'image') this.picture(element, frame);
      else return name === 'svg' ? nestFrame(element, frame, this.clips) : frame;
      return null;
    } catch (error) {
      if (!(error instanceof AppError) || /^line \d/.test(error.message)) throw error;
      throw new AppError(error.code, `line ${element.line}: ${error.message}`, error.details);
    }
  }

  private inherit({ name, attributes }: XmlElement, parent: Frame, { ruled, sayings }: OwnSayings): Frame {
    const style = sayings & SAYS.style ? inheritStyle(parent.style, attributes, ruled) : parent.style;
    const effects = sayings & SAYS.effects ? readEffects(attributes, ruled) : NO_EFFECTS;
    const transform = attributes['transform'];
    const named = name === 'g' ? layerName(attributes) : null;
    if (!transform && !named && effects === NO_EFFECTS) {
      return style === parent.style ? parent : this.styled(parent, style);
    }
    const affine = transform ? composeAffine(parent.affine, readSvgTransform(transform)) : parent.affine;
    const own = effects.clip === null ? null : this.clips.within(effects.clip, affine, parent);
    const isUnfollowed = effects.clip !== null && own === null;
    if (isUnfollowed) this.takeWhole();
    const isFaded = effects.opacity < 1 || effects.isFiltered || isUnfollowed;
    return {
      ...parent,
      style,
      affine,
      layer: named ?? parent.layer,
      isClear: parent.isClear || effects.opacity === 0,
      isFaded: parent.isFaded || isFaded,
      clip: own ?? parent.clip,
    };
  }

  /** A frame that differs by its style alone is shared by all elements of that style. */
  private styled(parent: Frame, style: Frame['style']): Frame {
    if (this.styledIn !== parent) {
      this.styledIn = parent;
      this.byStyle.clear();
    }
    let frame = this.byStyle.get(style);
    if (!frame) this.byStyle.set(style, (frame = { ...parent, style }));
    return frame;
  }

  private draw(element: XmlElement, frame: Frame): void {
    const { style, affine, clip } = frame;
    if (style.isInvisible) return;
    const shape = this.shapes++;
    this.listener?.onShape(shape, element, frame.uses);
    const contours = readSvgShape(element.name, element.attributes, affine, frame.viewport, this.budget);
    if (contours.length === 0) return;
    if (this.looked !== frame) {
      this.looked = frame;
      this.looks = looksOf(frame);
    }
    const { isPainted, fillColour, strokeColour, strokeWidthMm, isServed, paint } = this.looks;
    if (isPainted) this.isMoreThanLines ||= this.looks.needsFile;
    else this.unpainted++;
    const { layer } = frame;
    const { dash } = style;
    for (const contour of contours) {
      if (this.idsGiven >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the drawing has more than ${MAX_CONTOURS} lines`);
      }
      // Counted also where it is not drawn: numbers that jobs have kept go on meaning the same lines.
      const id = this.idsGiven++;
      if (!isPainted) continue;
      if (clip) {
        const seen = this.clips.shows(clip, contour, fillColour !== null, (strokeWidthMm ?? 0) / 2);
        if (seen === 'part') this.takeWhole();
        if (seen === 'none') this.clippedAway++;
        if (seen === 'none') continue;
      }
      this.contours.push({
        id,
        contour,
        layer,
        strokeColour,
        strokeWidthMm,
        fillColour,
        dash,
        shape,
        isServed,
        paint,
      });
    }
  }

  private reuse(element: XmlElement, frame: Frame): void {
    const { attributes } = element;
    const address = attributes['href'] ?? attributes['xlink:href'] ?? '';
    const target = this.byId.get(address.slice(1));
    if (!address.startsWith('#') || !target) {
      this.leftOut.add('reused symbols that are not in the file');
      return;
    }
    if (frame.uses.length >= MAX_REUSE)
      throw new AppError('badDrawing', `symbol "${address}" stands within itself`);
    this.budget.spend(STEPS.reuse);
    const x = readCoordinate(attributes['x'], frame.viewport.width);
    const y = readCoordinate(attributes['y'], frame.viewport.height);
    const inner = {
      ...frame,
      affine: composeAffine(frame.affine, [1, 0, 0, 1, x, y]),
      uses: [...frame.uses, element],
    };
    if (target.name !== 'symbol' && target.name !== 'svg') return this.visit(target, inner);
    const style = inheritStyle(
      inner.style,
      target.attributes,
      matchRules(this.sheet, target.name, target.attributes, this.budget),
    );
    const { width, height } = attributes;
    const sized = { ...target.attributes, ...(width ? { width } : {}), ...(height ? { height } : {}) };
    const nested = nestFrame({ name: target.name, attributes: sized }, { ...inner, style }, this.clips);
    for (const child of target.children) this.visit(child, nested);
  }

  /** A line runs on beyond what a clip shows of it. */
  private takeWhole(): void {
    this.isMoreThanLines = true;
    this.leftOut.add('clipping (lines to cut are taken whole)');
  }

  private picture(element: XmlElement, frame: Frame): void {
    const image = readSvgPicture(element, frame);
    if (image === 'outside') this.leftOut.add('pictures outside the file, or neither PNG nor JPEG');
    if (image === 'outside' || image === null) return;
    if (this.images.length >= MAX_PICTURES) {
      throw new AppError('tooLarge', `the drawing has more than ${MAX_PICTURES} pictures`);
    }
    const isPlain = image.isPlain === true && !frame.isFaded && frame.clip === null;
    if (!isPlain || this.contours.length > 0) this.isMoreThanLines = true;
    this.listener?.onPicture(this.images.length, element, frame.uses);
    this.images.push({ ...image, isPlain, overShapes: this.shapes });
  }
}
