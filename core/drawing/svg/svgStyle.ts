import { colord, extend } from 'colord';
import names from 'colord/plugins/names';
import { FURTHEST_MM, type ShapePaint } from '#core/drawing/drawing.ts';
import { readDeclarations, type Declarations } from '#core/drawing/svg/svgStyleSheet.ts';

extend([names]);

/** What a line inherits from the groups around it. */
export interface SvgStyle {
  readonly stroke: string | null;
  readonly fill: string | null;
  readonly color: string;
  readonly dash: string | null;
  /** In user units of where it was set. */
  readonly strokeWidth: number;
  /** Of an unbroken line; dashes are laid out where the scale is known. */
  readonly pen: ShapePaint;
  /** In user units. */
  readonly dashOffset: number;
  /** The first font that is asked for. */
  readonly family: string | null;
  readonly isInvisible: boolean;
  /** How much the colours themselves cover, 0 to 1; opacity comes on top. */
  readonly fillAlpha: number;
  readonly strokeAlpha: number;
  /** A gradient or a pattern. */
  readonly isFillServed: boolean;
  readonly isStrokeServed: boolean;
  readonly fillOpacity: number;
  readonly strokeOpacity: number;
  /** Markers, an order of painting or a pen that does not scale. */
  readonly isAdorned: boolean;
}

/** The initial values of SVG: no stroke, black fill. */
export const INITIAL_STYLE: SvgStyle = {
  stroke: null,
  fill: '#000000',
  color: '#000000',
  dash: null,
  strokeWidth: 1,
  pen: { isEvenOdd: false, cap: 'butt', join: 'miter', miterLimit: 4, dashMm: [], dashOffsetMm: 0 },
  dashOffset: 0,
  family: null,
  isInvisible: false,
  fillAlpha: 1,
  strokeAlpha: 1,
  isFillServed: false,
  isStrokeServed: false,
  fillOpacity: 1,
  strokeOpacity: 1,
  isAdorned: false,
};

const STYLED: ReadonlySet<string> = new Set([
  'stroke',
  'fill',
  'color',
  'stroke-dasharray',
  'stroke-dashoffset',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-opacity',
  'fill-opacity',
  'fill-rule',
  'visibility',
  'style',
  'marker',
  'marker-start',
  'marker-mid',
  'marker-end',
  'paint-order',
  'vector-effect',
  'font-family',
]);

/** What an element is drawn through as a whole; it is not inherited. */
export interface Effects {
  readonly opacity: number;
  /** The address of a clip in the file, as `url(#…)`. */
  readonly clip: string | null;
  /** A mask, a filter or a way of blending. */
  readonly isFiltered: boolean;
}

/** The effects of an element that names none. */
export const NO_EFFECTS: Effects = { opacity: 1, clip: null, isFiltered: false };
const EFFECTS: ReadonlySet<string> = new Set([
  'opacity',
  'clip-path',
  'mask',
  'filter',
  'mix-blend-mode',
  'style',
]);

/** What an element may say of itself, as bits. */
export const SAYS = { style: 1, effects: 2, more: 4 } as const;
const SAYINGS = new Map<string, number>(
  [...STYLED, ...EFFECTS, 'transform', 'display', 'class', 'id', 'href', 'xlink:href'].map((name) => [
    name,
    (STYLED.has(name) ? SAYS.style : 0) | (EFFECTS.has(name) ? SAYS.effects : 0) || SAYS.more,
  ]),
);

/**
 * What an element says beside its shape: most elements of most drawings say nothing. One character names a place or a
 * path.
 *
 * @returns bits of {@link SAYS}; a style attribute may say anything
 * @example sayingsOf({ d: 'M0 0H9', opacity: '1' }) // 2
 */
export function sayingsOf(attributes: Readonly<Record<string, string>>): number {
  let bits = 0;
  for (const name in attributes) if (name.length > 1) bits |= SAYINGS.get(name) ?? 0;
  return bits;
}

type Values = Readonly<Record<string, string | undefined>>;

/**
 * The style inside an element: its attributes over what it inherits, rules of the style sheet over them, and its
 * style attribute over all. Colours that cannot be read are taken as black, so that a line is never lost for its paint.
 *
 * @example inheritStyle(INITIAL_STYLE, { stroke: 'red' }).stroke // '#ff0000'
 */
export function inheritStyle(
  parent: SvgStyle,
  attributes: Readonly<Record<string, string>>,
  ruled: Declarations | null = null,
): SvgStyle {
  const key = styledKey(attributes);
  if (!ruled && key === '') return parent;
  if (ruled) return styleWithin(parent, valuesOf(attributes, ruled));
  // Most elements of a drawing are styled as others in the same group are: each style is worked out once.
  let within = styles.get(parent);
  if (!within) styles.set(parent, (within = new Map()));
  let style = within.get(key);
  if (!style) {
    style = styleWithin(parent, valuesOf(attributes, null));
    if (within.size > MOST_KEPT) within.clear();
    within.set(key, style);
  }
  return style;
}

/** Styles by what they are within and by what their elements say. */
const styles = new WeakMap<SvgStyle, Map<string, SvgStyle>>();
const MOST_KEPT = 2000;

/** What an element says of its style, as text. One character names a place or a path, and nothing of style. */
function styledKey(attributes: Readonly<Record<string, string>>): string {
  let key = '';
  for (const name in attributes) {
    if (name.length > 1 && STYLED.has(name)) key += `${name}:${attributes[name]};`;
  }
  return key;
}

function styleWithin(parent: SvgStyle, own: Values): SvgStyle {
  const color = own['color'] ? hexOf(own['color'], parent.color).hex : parent.color;
  const fill = paint(own['fill'], color);
  const stroke = paint(own['stroke'], color);
  const visibility = own['visibility'];
  return {
    stroke: stroke ? stroke.hex : parent.stroke,
    fill: fill ? fill.hex : parent.fill,
    color,
    dash: dashOf(own['stroke-dasharray'], parent.dash),
    strokeWidth: lengthOf(own['stroke-width'], parent.strokeWidth),
    pen: penOf(own, parent.pen),
    dashOffset: lengthOf(own['stroke-dashoffset'], parent.dashOffset),
    family: own['font-family']?.split(',')[0]?.replace(/["']/g, '').trim().slice(0, 60) ?? parent.family,
    isInvisible:
      visibility === undefined || visibility === 'inherit' ? parent.isInvisible : visibility !== 'visible',
    fillAlpha: fill ? fill.alpha : parent.fillAlpha,
    strokeAlpha: stroke ? stroke.alpha : parent.strokeAlpha,
    fillOpacity: alphaOf(own['fill-opacity'], parent.fillOpacity),
    strokeOpacity: alphaOf(own['stroke-opacity'], parent.strokeOpacity),
    isFillServed: fill ? fill.isServed : parent.isFillServed,
    isStrokeServed: stroke ? stroke.isServed : parent.isStrokeServed,
    isAdorned: isAdorned(own, parent.isAdorned),
  };
}

/**
 * What an element is drawn through as a whole.
 *
 * @example readEffects({ opacity: '0' }).opacity // 0
 */
export function readEffects(
  attributes: Readonly<Record<string, string>>,
  ruled: Declarations | null = null,
): Effects {
  const own = valuesOf(attributes, ruled);
  const isSet = (value: string | undefined, none: string) => value !== undefined && value.trim() !== none;
  return {
    opacity: alphaOf(own['opacity'], 1),
    clip: isSet(own['clip-path'], 'none') ? (own['clip-path'] ?? null) : null,
    isFiltered:
      isSet(own['mask'], 'none') || isSet(own['filter'], 'none') || isSet(own['mix-blend-mode'], 'normal'),
  };
}

/**
 * Whether an element and all in it is not shown at all.
 *
 * @example isUndisplayed({ display: 'none' }, null) // true
 */
export function isUndisplayed(
  attributes: Readonly<Record<string, string>>,
  ruled: Declarations | null,
): boolean {
  const inline = attributes['style'];
  const display =
    (inline?.includes('display') ? readDeclarations(inline)['display'] : undefined) ??
    ruled?.['display'] ??
    attributes['display'];
  return display === 'none';
}

/**
 * What holds for an element: its attributes, rules of the style sheet over them, its style attribute over all.
 *
 * @example valuesOf({ fill: 'red', style: 'fill: blue' }, null)['fill'] // 'blue'
 */
export function valuesOf(attributes: Readonly<Record<string, string>>, ruled: Declarations | null): Values {
  const inline = attributes['style'];
  if (!ruled && !inline) return attributes;
  return { ...attributes, ...ruled, ...(inline ? readDeclarations(inline) : {}) };
}

function penOf(own: Values, parent: ShapePaint): ShapePaint {
  const rule = own['fill-rule'];
  const cap = own['stroke-linecap'];
  const join = own['stroke-linejoin'];
  const limit = own['stroke-miterlimit'];
  if (!rule && !cap && !join && !limit) return parent;
  const miterLimit = parseFloat(limit ?? '');
  return {
    ...parent,
    isEvenOdd: rule === 'evenodd' || rule === 'nonzero' ? rule === 'evenodd' : parent.isEvenOdd,
    cap: cap === 'butt' || cap === 'round' || cap === 'square' ? cap : parent.cap,
    join: join === 'miter' || join === 'round' || join === 'bevel' ? join : parent.join,
    miterLimit: miterLimit >= 1 ? miterLimit : parent.miterLimit,
  };
}

function isAdorned(own: Values, inherited: boolean): boolean {
  const given = [own['marker'], own['marker-start'], own['marker-mid'], own['marker-end']];
  const hasMarker = given.some((one) => one?.includes('url('));
  const hasOrder = own['paint-order'] !== undefined && own['paint-order'] !== 'normal';
  const isFixed = own['vector-effect'] === 'non-scaling-stroke';
  return inherited || hasMarker || hasOrder || isFixed;
}

function lengthOf(value: string | undefined, inherited: number): number {
  const width = value === undefined ? NaN : parseFloat(value);
  return width >= 0 && width < FURTHEST_MM ? width : inherited;
}

/** 0 to 1; a percentage is one of it. */
function alphaOf(value: string | undefined, inherited: number): number {
  const alpha = value === undefined ? NaN : parseFloat(value) / (value.includes('%') ? 100 : 1);
  return Number.isFinite(alpha) ? Math.min(1, Math.max(0, alpha)) : inherited;
}

function dashOf(value: string | undefined, inherited: string | null): string | null {
  if (value === undefined || value === 'inherit') return inherited;
  const lengths = value.split(/[\s,]+/).filter(Boolean);
  const isBroken = lengths.some((length) => parseFloat(length) > 0);
  return value.trim() === 'none' || !isBroken ? null : lengths.join(' ').slice(0, 40);
}

interface Paint {
  readonly hex: string | null;
  readonly alpha: number;
  readonly isServed: boolean;
}

const NO_PAINT: Paint = { hex: null, alpha: 1, isServed: false };
/** The group of a gradient's lines is that of black ones, as it always was: roles given to it stay. */
const SERVED: Paint = { hex: '#000000', alpha: 1, isServed: true };

/** @returns `null` where nothing is said and the paint is inherited */
function paint(value: string | undefined, color: string): Paint | null {
  if (value === undefined || value === 'inherit') return null;
  const text = value.trim();
  if (text === 'none' || text === 'transparent') return NO_PAINT;
  if (/^currentcolor$/i.test(text)) return { hex: color, alpha: 1, isServed: false };
  return text.startsWith('url(') ? SERVED : hexOf(text, '#000000');
}

/** Drawings use few colours: each is read once. Emptied before it could grow with hostile files. */
const known = new Map<string, Paint & { readonly hex: string }>();

function hexOf(text: string, fallback: string): Paint & { readonly hex: string } {
  let colour = known.get(text);
  if (colour === undefined) {
    const parsed = colord(text);
    if (!parsed.isValid()) return { hex: fallback, alpha: 1, isServed: false };
    colour = { hex: parsed.alpha(1).toHex(), alpha: parsed.alpha(), isServed: false };
    if (known.size > 2000) known.clear();
    known.set(text, colour);
  }
  return colour;
}
