import { AppError } from '#core/errors/appError.ts';
import { composeAffine, IDENTITY, type Affine } from '#core/geometry/affine.ts';

const CALL = /([a-zA-Z]+)\s*\(([^)]*)\)/y;
const BLANKS = /[\s,;]*/y;
const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?/g;

/**
 * Reads an SVG transform list into one map.
 *
 * @throws AppError `badDrawing` for unknown functions or a wrong count of numbers
 * @example readSvgTransform('translate(10) scale(2)') // [2, 0, 0, 2, 10, 0]
 */
export function readSvgTransform(text: string): Affine {
  let affine = IDENTITY;
  let position = skip(text, 0);
  while (position < text.length) {
    CALL.lastIndex = position;
    const match = CALL.exec(text);
    if (!match) throw new AppError('badDrawing', `transform "${text.slice(0, 60)}" cannot be read`);
    const numbers = (match[2] ?? '').match(NUMBER)?.map(Number) ?? [];
    affine = composeAffine(affine, readCall(match[1] ?? '', numbers));
    position = skip(text, CALL.lastIndex);
  }
  return affine;
}

/** Where the next word begins, at or after a place. */
function skip(text: string, from: number): number {
  BLANKS.lastIndex = from;
  BLANKS.test(text);
  return BLANKS.lastIndex;
}

function readCall(name: string, n: readonly number[]): Affine {
  const radians = ((n[0] ?? 0) * Math.PI) / 180;
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = n;
  switch (`${name}/${n.length}`) {
    case 'matrix/6':
      return [a, b, c, d, e, f];
    case 'translate/1':
    case 'translate/2':
      return [1, 0, 0, 1, a, b];
    case 'scale/1':
      return [a, 0, 0, a, 0, 0];
    case 'scale/2':
      return [a, 0, 0, b, 0, 0];
    case 'rotate/1':
      return rotation(radians);
    case 'rotate/3':
      return composeAffine([1, 0, 0, 1, b, c], composeAffine(rotation(radians), [1, 0, 0, 1, -b, -c]));
    case 'skewX/1':
      return [1, 0, Math.tan(radians), 1, 0, 0];
    case 'skewY/1':
      return [1, Math.tan(radians), 0, 1, 0, 0];
    default:
      throw new AppError('badDrawing', `transform ${name} with ${n.length} numbers cannot be read`);
  }
}

function rotation(radians: number): Affine {
  return [Math.cos(radians), Math.sin(radians), -Math.sin(radians), Math.cos(radians), 0, 0];
}
