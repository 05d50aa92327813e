import { colord, extend } from 'colord';
import names from 'colord/plugins/names';

extend([names]);

/** What a line inherits from the groups around it. */
export interface SvgStyle {
  readonly stroke: string | null;
  readonly fill: string | null;
  readonly color: string;
  readonly isHidden: boolean;
}

/** The initial values of SVG: no stroke, black fill. */
export const INITIAL_STYLE: SvgStyle = { stroke: null, fill: '#000000', color: '#000000', isHidden: false };

/**
 * The style inside an element: its attributes over what it inherits, and its style attribute over both. Colours
 * that cannot be read are taken as black, so that a line is never lost for its paint.
 */
export function inheritStyle(parent: SvgStyle, attributes: Readonly<Record<string, string>>): SvgStyle {
  const own = { ...attributes, ...readDeclarations(attributes['style'] ?? '') };
  const color = own['color'] ? hexOf(own['color'], parent.color) : parent.color;
  const isHidden = parent.isHidden || own['display'] === 'none' || own['visibility'] === 'hidden';
  return {
    stroke: paint(own['stroke'], parent.stroke, color),
    fill: paint(own['fill'], parent.fill, color),
    color,
    isHidden,
  };
}

function readDeclarations(style: string): Record<string, string> {
  const found: Record<string, string> = {};
  for (const declaration of style.split(';')) {
    const colon = declaration.indexOf(':');
    if (colon > 0) found[declaration.slice(0, colon).trim()] = declaration.slice(colon + 1).trim();
  }
  return found;
}

function paint(value: string | undefined, inherited: string | null, color: string): string | null {
  if (value === undefined || value === 'inherit') return inherited;
  const text = value.trim();
  if (text === 'none' || text === 'transparent') return null;
  return /^currentcolor$/i.test(text) ? color : hexOf(text, '#000000');
}

function hexOf(text: string, fallback: string): string {
  const parsed = colord(text);
  return parsed.isValid() ? parsed.alpha(1).toHex() : fallback;
}
