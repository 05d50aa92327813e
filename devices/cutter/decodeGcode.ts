import { DecodeError, type Instruction, type Spot } from '#devices/cutter/instruction.ts';

/** What a line of G-code asks for: instructions, or to wait until all before is done and then some seconds more. */
export interface GcodeStep {
  readonly instructions: readonly Instruction[];
  /** Seconds of a dwell, or `null`. */
  readonly dwellSeconds: number | null;
  readonly isEnd: boolean;
}

const WORD = /([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/g;
const LONGEST_LINE = 256;
const MM_PER_INCH = 25.4;
/** What is done elsewhere, and words that change nothing in this machine: plane XY, no compensation, feed by the minute. */
const TAKEN = new Set(['G4', 'M2', 'M30', 'G17', 'G40', 'G49', 'G54', 'G61', 'G64', 'G80', 'G94']);

/**
 * Interprets G-code line by line, with the modal state that NISTIR 6556 gives these words. Written apart from the
 * program that sends, so that its mistakes are not repeated here. This machine brings its tool down by M3 with the force
 * in S, or by a height below 0; it has no arcs.
 */
export class GcodeDecoder {
  private at: Spot = { xMm: 0, yMm: 0 };
  private heightMm = 1;
  private isRapid = true;
  private isAbsolute = true;
  private mmPerUnit = 1;
  private force: number | null = null;
  private feed: number | null = null;
  private tool = 1;
  private isPressing = false;

  /** @throws DecodeError for a line that this machine cannot do; nothing of it is done */
  read(text: string): GcodeStep {
    if (text.length > LONGEST_LINE) throw new DecodeError(`a line is longer than ${LONGEST_LINE} characters`);
    const plain = text
      .toUpperCase()
      .replace(/\([^)]*\)/g, '')
      .replace(/;.*$/, '')
      .trim();
    const words = [...plain.matchAll(WORD)].map(([, letter = '', value]) => ({
      letter,
      value: Number(value),
    }));
    if (plain.replace(WORD, '').trim() !== '') throw new DecodeError(`cannot read "${plain.slice(0, 30)}"`);
    return this.obey(words);
  }

  private obey(words: readonly { readonly letter: string; readonly value: number }[]): GcodeStep {
    const valueOf = (letter: string) => words.find((word) => word.letter === letter)?.value;
    const codes = words
      .filter(({ letter }) => letter === 'G' || letter === 'M')
      .map(({ letter, value }) => letter + String(value));
    const instructions: Instruction[] = [];
    const wantsTool = valueOf('T');
    if (wantsTool !== undefined) this.tool = wantsTool;
    const feed = valueOf('F');
    if (feed !== undefined) {
      if (feed <= 0) throw new DecodeError('a feed of 0');
      this.feed = feed * this.mmPerUnit;
      instructions.push({ kind: 'speed', value: this.feed / 60 });
    }
    const force = valueOf('S');
    if (force !== undefined) this.force = force;
    for (const code of codes) instructions.push(...this.obeyCode(code));
    const isEnd = codes.some((code) => code === 'M2' || code === 'M30');
    const isDwell = codes.includes('G4');
    if (isDwell) {
      const seconds = valueOf('P');
      if (seconds === undefined || seconds < 0) throw new DecodeError('a dwell without its seconds');
      return { instructions, dwellSeconds: seconds, isEnd };
    }
    instructions.push(...this.moveZ(valueOf('Z')), ...this.moveXy(valueOf('X'), valueOf('Y')));
    if (isEnd) instructions.push({ kind: 'end' });
    return { instructions, dwellSeconds: null, isEnd };
  }

  private obeyCode(code: string): readonly Instruction[] {
    switch (code) {
      case 'G0':
      case 'G1':
        this.isRapid = code === 'G0';
        return [];
      case 'G20':
      case 'G21':
        this.mmPerUnit = code === 'G20' ? MM_PER_INCH : 1;
        return [];
      case 'G90':
      case 'G91':
        this.isAbsolute = code === 'G90';
        return [];
      case 'M3':
        return this.press();
      case 'M5':
        this.isPressing = false;
        return [{ kind: 'lift' }];
      case 'M6':
        return [{ kind: 'tool', seat: this.tool }];
      default:
        if (!TAKEN.has(code)) throw new DecodeError(`no ${code} on this machine`);
        return [];
    }
  }

  private press(): readonly Instruction[] {
    this.isPressing = true;
    const force: readonly Instruction[] = this.force === null ? [] : [{ kind: 'force', value: this.force }];
    return [{ kind: 'lift' }, ...force, { kind: 'press' }];
  }

  private moveZ(z: number | undefined): readonly Instruction[] {
    if (z === undefined) return [];
    this.heightMm = this.isAbsolute ? z * this.mmPerUnit : this.heightMm + z * this.mmPerUnit;
    this.isPressing = this.heightMm < 0;
    return this.isPressing ? [{ kind: 'press' }] : [{ kind: 'lift' }];
  }

  private moveXy(x: number | undefined, y: number | undefined): readonly Instruction[] {
    if (x === undefined && y === undefined) return [];
    if (!this.isRapid && this.feed === null) throw new DecodeError('a cut without a feed');
    if (this.isRapid && this.isPressing) throw new DecodeError('a rapid move with the tool down');
    const axis = (value: number | undefined, at: number) =>
      value === undefined ? at : this.isAbsolute ? value * this.mmPerUnit : at + value * this.mmPerUnit;
    this.at = { xMm: axis(x, this.at.xMm), yMm: axis(y, this.at.yMm) };
    return this.isRapid || !this.isPressing
      ? [{ kind: 'travel', points: [this.at] }]
      : [{ kind: 'draw', to: this.at }];
  }
}
