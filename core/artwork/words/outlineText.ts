import { writeAttributes } from '#core/drawing/svg/writeXml.ts';
import { readCoordinate } from '#core/drawing/svg/svgShape.ts';
import { indexElements } from '#core/drawing/svg/indexElements.ts';
import { valuesOf } from '#core/drawing/svg/svgStyle.ts';
import {
  matchRules,
  NO_STYLE_SHEET,
  readDeclarations,
  readStyleSheet,
  type Declarations,
  type StyleSheet,
} from '#core/drawing/svg/svgStyleSheet.ts';
import { readXmlStream, readXmlTree, type XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { MAX_DEPTH } from '#core/drawing/svg/readSvg.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import { mapContour, type Affine } from '#core/geometry/affine.ts';
import type { Contour } from '#core/geometry/contour.ts';

/** The font that a drawing asks for. */
export interface FontAsked {
  /** Names in the order in which they are wanted. */
  readonly families: readonly string[];
  readonly isBold: boolean;
}

/** Sets a line of text; `null` where no font of those names is known. Its map is from ems, y upwards. */
export type LineSetter = (
  font: FontAsked,
  text: string,
  toPlace: Affine,
) => { readonly contours: readonly Contour[]; readonly advance: number } | null;

interface TextStyle {
  readonly families: readonly string[];
  readonly sizePx: number;
  readonly isBold: boolean;
  readonly anchor: string;
}

interface Run {
  readonly text: string;
  readonly style: TextStyle;
  /** What it is painted with, where a part of the text says so itself. */
  readonly paint: Readonly<Record<string, string>>;
  /** Where it begins, where it says so; else it goes on. */
  readonly x: number | null;
  readonly y: number | null;
  readonly dx: number;
  readonly dy: number;
}

/** The initial values of SVG. */
const PLAIN: TextStyle = { families: [], sizePx: 16, isBold: false, anchor: 'start' };
/** What places text and letters, and says nothing of paint. */
const PLACING =
  /^(x|y|dx|dy|rotate|textLength|lengthAdjust|text-anchor|xml:space|font.*|letter-spacing|word-spacing|id)$/;
/** What is not followed: such text stays text. */
const UNFOLLOWED =
  /<(?:[\w-]+:)?(textPath|tref|altGlyph)\b|\s(rotate|textLength|letter-spacing|writing-mode)\s*=|letter-spacing\s*:\s*[^n0;]/;
/** Smaller letters would lose their shape in path data of three decimals, user units. */
const SMALLEST = 2;
const KEEPS_TEXT: ReadonlySet<string> = new Set(['style']);

/**
 * Whether a drawing holds words.
 *
 * @example hasText('<svg><text>a</text></svg>') // true
 */
export function hasText(source: string): boolean {
  return /<(?:[\w-]+:)?text[\s>]/.test(source);
}

/**
 * A drawing whose words are outlines: each text whose font is known becomes paths of the same paint, at the same place. All
 * other text stays as it is.
 *
 * @throws AppError `badDrawing` for what is no XML
 * @example outlineText('<svg viewBox="0 0 9 9"><path d="M0 0H9"/></svg>', () => null) // '<svg viewBox="0 0 9 9"><path d="M0 0H9"/></svg>'
 */
export function outlineText(source: string, setLine: LineSetter): string {
  if (!hasText(source)) return source;
  const root = readXmlTree(source, MAX_DEPTH, KEEPS_TEXT);
  const { css } = indexElements(root);
  const sheet = css === '' ? NO_STYLE_SHEET : readStyleSheet(css);
  const splices: { readonly from: number; readonly to: number; readonly words: string }[] = [];
  const visit = (element: XmlElement, style: TextStyle) => {
    const own = valuesOf(element.attributes, matchRules(sheet, element.name, element.attributes));
    const inner = styleWithin(style, own);
    if (element.name !== 'text') return element.children.forEach((child) => visit(child, inner));
    const from = source.lastIndexOf('<', element.tagEnd - 1);
    const words = drawText(element, source.slice(from, element.to), { style, sheet, setLine });
    if (words !== null) splices.push({ from, to: element.to, words });
  };
  visit(root, PLAIN);
  let at = 0;
  const kept = splices.flatMap(({ from, to, words }) => {
    const before = source.slice(at, from);
    at = to;
    return [before, words];
  });
  return [...kept, source.slice(at)].join('');
}

type Values = ReturnType<typeof valuesOf>;

function styleWithin(parent: TextStyle, own: Values): TextStyle {
  const family = own['font-family'];
  const size = own['font-size'];
  const weight = own['font-weight'];
  const sizePx =
    size !== undefined && /^[\d.]+\s*(px|pt|mm|cm|in|pc|q)?$/i.test(size.trim())
      ? readCoordinate(size.trim(), 0)
      : NaN;
  return {
    families: family === undefined ? parent.families : namesIn(family),
    sizePx: sizePx > 0 ? sizePx : parent.sizePx,
    isBold: weight === undefined ? parent.isBold : /bold/.test(weight) || parseFloat(weight) >= 600,
    anchor: own['text-anchor'] ?? parent.anchor,
  };
}

function namesIn(family: string): readonly string[] {
  return family
    .split(',')
    .map((name) => name.trim().replace(/^["']|["']$/g, ''))
    .filter(Boolean);
}

interface Setting {
  readonly style: TextStyle;
  readonly sheet: StyleSheet;
  readonly setLine: LineSetter;
}

/** @returns `null` where the text cannot be drawn as it is meant */
function drawText(element: XmlElement, xml: string, { style, sheet, setLine }: Setting): string | null {
  if (UNFOLLOWED.test(xml)) return null;
  const runs = readRuns(xml, style, sheet);
  if (runs.some(({ style: { sizePx } }) => sizePx < SMALLEST)) return null;
  const paths: string[] = [];
  let [x, y] = [0, 0];
  for (let at = 0; at < runs.length;) {
    const first = runs[at] as Run;
    const end = endOfChunk(runs, at);
    x = first.x ?? x;
    y = first.y ?? y;
    // The width of all that hangs together is known before where it begins is: set once, and moved there.
    const chunk = runs.slice(at, end).map((run) => {
      const { sizePx } = run.style;
      const set = setLine(askedFor(run), run.text, [sizePx, 0, 0, -sizePx, 0, 0]);
      return set && { run, contours: set.contours, width: set.advance * sizePx };
    });
    if (!chunk.every((one) => one !== null)) return null;
    const total = chunk.reduce((sum, { run, width }) => sum + width + run.dx, 0);
    x -= first.style.anchor === 'middle' ? total / 2 : first.style.anchor === 'end' ? total : 0;
    for (const { run, contours, width } of chunk) {
      x += run.dx;
      y += run.dy;
      const place: Affine = [1, 0, 0, 1, x, y];
      const data = contours.map((contour) => writePathData(mapContour(place, contour))).join('');
      if (data !== '') paths.push(`<path${writeAttributes(run.paint)} d="${data}"/>`);
      x += width;
    }
    at = end;
  }
  const paint = paintOf(element, sheet);
  const { id } = element.attributes;
  return `<g${writeAttributes({ ...(id ? { id } : {}), ...paint })}>${paths.join('')}</g>`;
}

/** Runs hang together until one says where it begins. */
function endOfChunk(runs: readonly Run[], from: number): number {
  const next = runs.findIndex((run, index) => index > from && (run.x !== null || run.y !== null));
  return next < 0 ? runs.length : next;
}

function askedFor({ style: { families, isBold } }: Run): FontAsked {
  return { families, isBold };
}

/** Attributes of paint and place of a text or a part of it, with what rules say of it by its name. */
function paintOf(
  { name, attributes }: Pick<XmlElement, 'name' | 'attributes'>,
  sheet: StyleSheet,
): Readonly<Record<string, string>> {
  const ruled: Declarations = matchRules(sheet, name, attributes) ?? {};
  const inline = { ...ruled, ...(attributes['style'] ? readDeclarations(attributes['style']) : {}) };
  const style = Object.entries(inline)
    .filter(([key]) => !PLACING.test(key))
    .map(([key, value]) => `${key}:${value}`)
    .join(';');
  const own = Object.entries(attributes).filter(
    ([key]) => key !== 'style' && key !== 'class' && !PLACING.test(key),
  );
  return { ...Object.fromEntries(own), ...(style ? { style } : {}) };
}

/** The text in pieces, each with what it inherits and where it begins. */
function readRuns(xml: string, style: TextStyle, sheet: StyleSheet): readonly Run[] {
  interface Open {
    readonly style: TextStyle;
    readonly paint: Readonly<Record<string, string>>;
    x: number | null;
    y: number | null;
    dx: number;
    dy: number;
  }
  const open: Open[] = [];
  const runs: Run[] = [];
  const number = (text: string | undefined) =>
    text === undefined ? null : readCoordinate(text.trim().split(/[\s,]+/)[0], 0);
  readXmlStream(xml, MAX_DEPTH, {
    open: (element) => {
      const own = valuesOf(element.attributes, matchRules(sheet, element.name, element.attributes));
      const parent = open.at(-1);
      const inner = styleWithin(parent?.style ?? style, own);
      open.push({
        style: inner,
        paint: parent ? { ...parent.paint, ...paintOf(element, sheet) } : {},
        x: number(element.attributes['x']) ?? (parent ? parent.x : 0),
        y: number(element.attributes['y']) ?? (parent ? parent.y : 0),
        dx: number(element.attributes['dx']) ?? 0,
        dy: number(element.attributes['dy']) ?? 0,
      });
      // What is told to a part is not told again after it.
      if (parent) parent.x = parent.y = null;
    },
    close: () => open.pop(),
    text: (words) => {
      const own = open.at(-1);
      if (!own) return;
      const plain = words.replace(/\s+/g, ' ');
      const text = runs.length === 0 || own.x !== null ? plain.trimStart() : plain;
      if (text === '') return;
      runs.push({ text, style: own.style, paint: own.paint, x: own.x, y: own.y, dx: own.dx, dy: own.dy });
      own.x = own.y = null;
      own.dx = own.dy = 0;
    },
  });
  return runs.map((run, index) => (index === runs.length - 1 ? { ...run, text: run.text.trimEnd() } : run));
}
