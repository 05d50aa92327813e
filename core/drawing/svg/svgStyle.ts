import { itemAt } from '#core/collections/itemAt.ts';
import { colord, extend } from 'colord';
import names from 'colord/plugins/names';
import { FURTHEST_MM } from '#core/drawing/drawing.ts';
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
  readonly isInvisible: boolean;
}

/** The initial values of SVG: no stroke, black fill. */
export const INITIAL_STYLE: SvgStyle = {
  stroke: null,
  fill: '#000000',
  color: '#000000',
  dash: null,
  strokeWidth: 1,
  isInvisible: false,
};

const STYLED = [
  'stroke',
  'fill',
  'color',
  'stroke-dasharray',
  'stroke-width',
  'visibility',
  'style',
] as const;

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
  if (!ruled && !isStyled(attributes)) return parent;
  const inline = attributes['style'];
  const own: Readonly<Record<string, string | undefined>> =
    ruled || inline ? { ...attributes, ...ruled, ...(inline ? readDeclarations(inline) : {}) } : attributes;
  const color = own['color'] ? hexOf(own['color'], parent.color) : parent.color;
  const visibility = own['visibility'];
  return {
    stroke: paint(own['stroke'], parent.stroke, color),
    fill: paint(own['fill'], parent.fill, color),
    color,
    dash: dashOf(own['stroke-dasharray'], parent.dash),
    strokeWidth: widthOf(own['stroke-width'], parent.strokeWidth),
    isInvisible:
      visibility === undefined || visibility === 'inherit' ? parent.isInvisible : visibility !== 'visible',
  };
}

function isStyled(attributes: Readonly<Record<string, string>>): boolean {
  for (let index = 0; index < STYLED.length; index++) {
    if (attributes[itemAt(STYLED, index)] !== undefined) return true;
  }
  return false;
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

function widthOf(value: string | undefined, inherited: number): number {
  const width = value === undefined ? NaN : parseFloat(value);
  return width >= 0 && width < FURTHEST_MM ? width : inherited;
}

function dashOf(value: string | undefined, inherited: string | null): string | null {
  if (value === undefined || value === 'inherit') return inherited;
  const lengths = value.split(/[\s,]+/).filter(Boolean);
  const isBroken = lengths.some((length) => parseFloat(length) > 0);
  return value.trim() === 'none' || !isBroken ? null : lengths.join(' ').slice(0, 40);
}

function paint(value: string | undefined, inherited: string | null, color: string): string | null {
  if (value === undefined || value === 'inherit') return inherited;
  const text = value.trim();
  if (text === 'none' || text === 'transparent') return null;
  return /^currentcolor$/i.test(text) ? color : hexOf(text, '#000000');
}

/** Drawings use few colours: each is read once. Emptied before it could grow with hostile files. */
const known = new Map<string, string | null>();

function hexOf(text: string, fallback: string): string {
  let hex = known.get(text);
  if (hex === undefined) {
    const parsed = colord(text);
    hex = parsed.isValid() ? parsed.alpha(1).toHex() : null;
    if (known.size > 2000) known.clear();
    known.set(text, hex);
  }
  return hex ?? fallback;
}
