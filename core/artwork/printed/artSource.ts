import { beginWalk, MAX_DEPTH } from '#core/drawing/svg/readSvg.ts';
import { indexElements } from '#core/drawing/svg/indexElements.ts';
import { MM_PER_PIXEL } from '#core/drawing/svg/svgLength.ts';
import { readCoordinate } from '#core/drawing/svg/svgShape.ts';
import { readViewBox } from '#core/drawing/svg/svgViewport.ts';
import type { DrawnListener } from '#core/drawing/svg/svgWalker.ts';
import { writeAttributes } from '#core/drawing/svg/writeXml.ts';
import { readXmlTree, type XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';
import type { BoxMm } from '#core/geometry/box.ts';

/** What of a drawing is shown. */
export interface ShownParts {
  /** Whether a shape is shown, by its number in {@link DrawnContour.shape}. */
  readonly shape: (shape: number) => boolean;
  /** Whether a picture is, by its place among the drawing's pictures. */
  readonly picture: (picture: number) => boolean;
}

/** An SVG that can be drawn again with only some of its shapes. */
export interface ArtSource {
  /**
   * The file itself without the shapes that are not shown: gradients, clips, filters and words stay as they were.
   *
   * @param box what part of the drawing, mm from its upper left corner
   * @returns an SVG at real size
   */
  readonly write: (box: BoxMm, shown: ShownParts) => string;
  /** Something blends with what lies below it: then nothing can be taken apart. */
  readonly isBlended: boolean;
}

/** What is drawn by one way through the symbols of a file: shapes by their element, and symbols within. */
interface Drawn {
  readonly parts: Map<XmlElement, { readonly kind: 'shape' | 'picture'; readonly number: number }>;
  readonly uses: Map<XmlElement, Drawn>;
}

/** Text in place of a stretch of the file. */
interface Splice {
  readonly from: number;
  readonly to: number;
  readonly words: string;
}

/** What places a symbol, and is worked into what stands in its stead. */
const PLACING: ReadonlySet<string> = new Set(['x', 'y', 'width', 'height', 'href', 'xlink:href', 'id']);
const KEEPS_TEXT: ReadonlySet<string> = new Set(['style']);

/**
 * Opens an SVG for being drawn again in parts.
 *
 * @throws AppError `badDrawing` as reading it does
 * @example openArt('<svg width="9mm" height="9mm" viewBox="0 0 9 9"><path d="M1 1H9"/></svg>').write({ minX: 0, minY: 0, maxX: 9, maxY: 9 }, { shape: () => false, picture: () => true }).includes('path') // false
 */
export function openArt(source: string): ArtSource {
  const root = readXmlTree(source, MAX_DEPTH, KEEPS_TEXT);
  const all: Drawn = { parts: new Map(), uses: new Map() };
  const note =
    (kind: 'shape' | 'picture'): DrawnListener['onShape'] =>
    (number, element, uses) =>
      uses.reduce(within, all).parts.set(element, { kind, number });
  const { drawn, size } = beginWalk(root, { onShape: note('shape'), onPicture: note('picture') });
  drawn.walk(root, () => undefined);
  const writer = new ArtWriter(source, indexElements(root).byId);
  return {
    isBlended: source.includes('mix-blend-mode'),
    write: (box, shown) => {
      const inside = writer.inside(root, all, ({ kind, number }) => shown[kind](number));
      const width = box.maxX - box.minX;
      const height = box.maxY - box.minY;
      const name = writer.nameOf(root);
      return (
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" ` +
        `viewBox="${box.minX} ${box.minY} ${width} ${height}">` +
        `<${name}${writeAttributes({ ...rootAttributes(root, size), overflow: 'visible' })}>${inside}</${name}></svg>`
      );
    },
  };
}

/** The outermost drawing at its real size, counted in mm. */
function rootAttributes(
  { attributes }: XmlElement,
  { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number },
): Readonly<Record<string, string>> {
  const { x: _x, y: _y, viewBox, ...others } = attributes;
  const hasBox = readViewBox(viewBox) !== null;
  const inPx = `0 0 ${widthMm / MM_PER_PIXEL} ${heightMm / MM_PER_PIXEL}`;
  return {
    ...others,
    width: String(widthMm),
    height: String(heightMm),
    viewBox: hasBox ? (viewBox ?? inPx) : inPx,
  };
}

function within(drawn: Drawn, use: XmlElement): Drawn {
  const known = drawn.uses.get(use);
  if (known) return known;
  const fresh: Drawn = { parts: new Map(), uses: new Map() };
  drawn.uses.set(use, fresh);
  return fresh;
}

type IsShown = (part: { readonly kind: 'shape' | 'picture'; readonly number: number }) => boolean;

class ArtWriter {
  /** Where something is left out of the drawing itself, in characters. */
  private touched: readonly number[] = [];

  constructor(
    private readonly source: string,
    private readonly byId: ReadonlyMap<string, XmlElement>,
  ) {}

  /** The content of an element as it stands in the file, less what is not shown. */
  inside(element: XmlElement, drawn: Drawn, isShown: IsShown): string {
    this.touched = [
      ...[...drawn.parts].filter(([, part]) => !isShown(part)),
      ...[...drawn.uses].filter(([, inner]) => countShown(inner, isShown).hidden > 0),
    ].map(([one]) => this.fromOf(one));
    return this.content(element, drawn, isShown);
  }

  private content(element: XmlElement, drawn: Drawn, isShown: IsShown): string {
    if (element.to === element.tagEnd) return '';
    const end = this.source.lastIndexOf('<', element.to - 1);
    return this.splice(element.tagEnd, end, this.splices(drawn, isShown));
  }

  /** The element's name with its prefix. */
  nameOf(element: XmlElement): string {
    const from = this.fromOf(element);
    return /^[^\s/>]+/.exec(this.source.slice(from + 1, element.tagEnd))?.[0] ?? element.name;
  }

  /** No "<" stands within a tag of well-formed XML. */
  private fromOf(element: XmlElement): number {
    return this.source.lastIndexOf('<', element.tagEnd - 1);
  }

  private splices(drawn: Drawn, isShown: IsShown): readonly Splice[] {
    const hidden = [...drawn.parts]
      .filter(([, part]) => !isShown(part))
      .map(([element]) => this.hide(element));
    const reused = [...drawn.uses].flatMap(([use, inner]): readonly Splice[] => {
      const seen = countShown(inner, isShown);
      if (seen.hidden > 0 && seen.shown === 0) return [this.hide(use)];
      if (seen.hidden === 0 && !this.isTouched(use, inner)) return [];
      return [{ from: this.fromOf(use), to: use.to, words: this.expand(use, inner, isShown) }];
    });
    return [...hidden, ...reused].sort((a, b) => a.from - b.from);
  }

  /** Whether something is hidden where a symbol stands itself, so that reusing it would hide it there too. */
  private isTouched(use: XmlElement, drawn: Drawn): boolean {
    const target = this.byId.get(addressOf(use));
    if (!target) return false;
    const from = this.fromOf(target);
    if (this.touched.some((at) => at >= from && at < target.to)) return true;
    return [...drawn.uses].some(([inner, within]) => this.isTouched(inner, within));
  }

  /** Left out, or put where it is only reused from. */
  private hide(element: XmlElement): Splice {
    const from = this.fromOf(element);
    const words = this.source.slice(from, element.to);
    if (!/\sid\s*=/.test(words)) return { from, to: element.to, words: '' };
    const name = this.nameOf(element);
    const defs = `${name.slice(0, name.length - element.name.length)}defs`;
    return { from, to: element.to, words: `<${defs}>${words}</${defs}>` };
  }

  /** What a symbol draws, written out where it is reused. */
  private expand(use: XmlElement, drawn: Drawn, isShown: IsShown): string {
    const target = this.byId.get(addressOf(use));
    if (!target) throw new AppError('badDrawing', `symbol "${addressOf(use)}" is not in the file`);
    const name = this.nameOf(use);
    const prefix = name.slice(0, name.length - use.name.length);
    const place = `translate(${lengthOf(use, 'x')} ${lengthOf(use, 'y')})`;
    const own = Object.entries(use.attributes).filter(([key]) => !PLACING.has(key));
    const group = (attributes: string, inside: string) => `<${prefix}g${attributes}>${inside}</${prefix}g>`;
    return group(
      writeAttributes(Object.fromEntries(own)),
      group(` transform="${place}"`, this.expandTarget(target, use, { prefix, drawn, isShown })),
    );
  }

  private expandTarget(
    target: XmlElement,
    use: XmlElement,
    { prefix, drawn, isShown }: { readonly prefix: string; readonly drawn: Drawn; readonly isShown: IsShown },
  ): string {
    if (target.name !== 'symbol' && target.name !== 'svg')
      return this.splice(this.fromOf(target), target.to, this.splices(drawn, isShown));
    const { id: _id, x: _x, y: _y, ...others } = target.attributes;
    const { width = others['width'] ?? '100%', height = others['height'] ?? '100%' } = use.attributes;
    const attributes = writeAttributes({ ...others, width, height });
    return `<${prefix}svg${attributes}>${this.content(target, drawn, isShown)}</${prefix}svg>`;
  }

  private splice(from: number, to: number, splices: readonly Splice[]): string {
    const kept: string[] = [];
    let at = from;
    for (const one of splices) {
      if (one.from < at || one.to > to) continue;
      kept.push(this.source.slice(at, one.from), one.words);
      at = one.to;
    }
    kept.push(this.source.slice(at, to));
    return kept.join('');
  }
}

function countShown(
  { parts, uses }: Drawn,
  isShown: IsShown,
): { readonly shown: number; readonly hidden: number } {
  let shown = 0;
  for (const part of parts.values()) if (isShown(part)) shown++;
  let hidden = parts.size - shown;
  for (const inner of uses.values()) {
    const counted = countShown(inner, isShown);
    shown += counted.shown;
    hidden += counted.hidden;
  }
  return { shown, hidden };
}

/** The id that a `use` names. */
function addressOf({ attributes }: XmlElement): string {
  return (attributes['href'] ?? attributes['xlink:href'] ?? '').slice(1);
}

function lengthOf({ attributes }: XmlElement, name: 'x' | 'y'): number {
  const given = attributes[name];
  return given?.endsWith('%') ? 0 : readCoordinate(given, 0);
}
