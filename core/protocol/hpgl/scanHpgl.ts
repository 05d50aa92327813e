import { AppError } from '#core/errors/appError.ts';

/** One instruction of a plot: two letters, and figures or, for those that hold text, what stands there. */
export interface HpglInstruction {
  readonly name: string;
  readonly figures: readonly number[];
  readonly text: string;
  /** Where it begins, in characters. */
  readonly at: number;
}

/** Ends a label unless DT says otherwise: the control character ETX. */
const LABEL_END = '\u0003';
/** What a device is told between plots, each form from its first character to its last. */
const ASIDES: readonly RegExp[] = [
  /[\s;,]+/y,
  // To the plotter's interface: a letter, then figures up to a colon.
  /\u001b\.[A-Z@()][\d;\s]*:?/y,
  // To a printer: marks, figures with small letters, and a capital at the end.
  /\u001b[%&()*][`-~]?(?:[+-]?[\d.]*[`-~])*[+-]?[\d.]*[@-^]/y,
  /\u001b[A-Z0-9=]/y,
  // A line for the printer's job language.
  /@PJL[^\r\n]*/y,
];
const NAME = /([A-Za-z])\s*([A-Za-z])/y;
/** Figures and quoted words up to a semicolon, the next letter or an escape. */
const FIGURES = /(?:"[^"]*"|[^A-Za-z;"\u001b])*;?/y;
const QUOTED = /\s*"[^"]*"\s*;?/y;

/**
 * The instructions of a plot, one after another, without headers of printers, escapes and blanks.
 *
 * @throws AppError `badDrawing` with the place: what is no instruction, figures that are none
 * @example [...scanHpgl('IN;PU0,0')].map(({ name }) => name) // ['IN', 'PU']
 */
export function* scanHpgl(text: string): Generator<HpglInstruction> {
  let at = skipAsides(text, 0);
  let labelEnd = LABEL_END;
  while (at < text.length) {
    NAME.lastIndex = at;
    const match = NAME.exec(text);
    if (!match) {
      throw new AppError(
        'badDrawing',
        `character ${at + 1}: "${text.slice(at, at + 20)}" is no HPGL instruction`,
      );
    }
    const name = `${match[1]}${match[2]}`.toUpperCase();
    const from = NAME.lastIndex;
    const end = endOf(text, from, name, labelEnd);
    const inside = text.slice(from, end);
    if (name === 'DT') labelEnd = /^[^;]/.exec(inside)?.[0] ?? LABEL_END;
    const isText = HOLDS_TEXT.has(name);
    yield { name, figures: isText ? [] : readFigures(inside, name, at), text: isText ? inside : '', at };
    at = skipAsides(text, end);
  }
}

const HOLDS_TEXT: ReadonlySet<string> = new Set(['LB', 'DT', 'CO', 'PE', 'SM', 'BP', 'BL', 'WD']);

function endOf(text: string, from: number, name: string, labelEnd: string): number {
  const after = (end: string, at = from) => {
    const found = text.indexOf(end, at);
    return found < 0 ? text.length : found + 1;
  };
  switch (name) {
    case 'LB':
    case 'BL':
    case 'WD':
      return after(labelEnd);
    case 'DT':
      // The character itself may be a semicolon's neighbour of any kind.
      return text[from] === ';' ? from + 1 : after(';', from + 1);
    case 'PE':
    case 'SM':
      return after(';');
    case 'CO':
      QUOTED.lastIndex = from;
      return QUOTED.test(text) ? QUOTED.lastIndex : after(';');
    default:
      FIGURES.lastIndex = from;
      FIGURES.test(text);
      return Math.max(from, FIGURES.lastIndex);
  }
}

function skipAsides(text: string, from: number): number {
  let at = from;
  for (let found = true; found && at < text.length;) {
    found = false;
    for (const aside of ASIDES) {
      aside.lastIndex = at;
      if (aside.test(text) && aside.lastIndex > at) {
        at = aside.lastIndex;
        found = true;
      }
    }
  }
  return at;
}

function readFigures(text: string, name: string, at: number): readonly number[] {
  const figures = text
    .replace(/"[^"]*"/g, ' ')
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  if (figures.every(Number.isFinite)) return figures;
  throw new AppError(
    'badDrawing',
    `character ${at + 1}: ${name} has "${text.replace(/;$/, '').trim().slice(0, 30)}" for figures`,
  );
}
