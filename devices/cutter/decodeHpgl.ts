import { DecodeError, type Instruction, type Spot } from '#devices/cutter/instruction.ts';

const UNITS_PER_MM = 40;
const LONGEST_COMMAND = 4_000_000;
const COMMAND = /^([A-Z]{2})([^A-Z]*)$/;

/**
 * Decodes HPGL as it arrives, however the bytes are cut up. A command ends with a semicolon; an unfinished one waits
 * for more bytes. Written apart from the program that sends, so that its mistakes are not repeated here.
 */
export class HpglDecoder {
  private waiting = '';

  /** Instructions completed by these bytes. @throws DecodeError for what is no command of this cutter */
  push(bytes: Buffer): readonly Instruction[] {
    this.waiting += bytes.toString('latin1');
    if (this.waiting.length > LONGEST_COMMAND) throw new DecodeError('a command is longer than 4 MB');
    const parts = this.waiting.split(';');
    this.waiting = parts.pop() ?? '';
    return parts
      .map((part) => part.replace(/[\r\n\s]/g, ''))
      .flatMap((part) => (part ? [decode(part)].flat() : []));
  }

  /** Whether half a command is still waiting for its end. */
  get isMidCommand(): boolean {
    return this.waiting.trim() !== '';
  }
}

function decode(command: string): Instruction | readonly Instruction[] {
  const match = COMMAND.exec(command);
  if (!match) throw new DecodeError(`cannot read "${command.slice(0, 30)}"`);
  const [, name = '', parameters = ''] = match;
  switch (name) {
    case 'IN':
      return { kind: 'begin' };
    case 'PA':
      return [];
    case 'SP':
      return parameters === '0' ? { kind: 'end' } : { kind: 'tool', seat: oneNumber(command, parameters) };
    case 'FS':
      return { kind: 'force', value: oneNumber(command, parameters) };
    case 'VS':
      return { kind: 'speed', value: oneNumber(command, parameters) };
    case 'UL': {
      const [, ...shares] = numbersOf(command, parameters);
      return { kind: 'defineLine', shares };
    }
    case 'LT': {
      if (parameters === '') return { kind: 'line', periodMm: null };
      const [, periodMm = 0, mode] = numbersOf(command, parameters);
      if (mode !== 1) throw new DecodeError(`"${command}": only lengths in mm are taken`);
      return { kind: 'line', periodMm };
    }
    case 'PU':
      return { kind: 'travel', points: spots(command, parameters) };
    case 'PD':
      return { kind: 'cut', points: spots(command, parameters) };
    default:
      throw new DecodeError(`unknown command ${name}`);
  }
}

function oneNumber(command: string, parameters: string): number {
  const value = Number(parameters);
  if (parameters === '' || !Number.isFinite(value)) throw new DecodeError(`"${command}" lacks its number`);
  return value;
}

function numbersOf(command: string, parameters: string): readonly number[] {
  const numbers = parameters.split(',').map(Number);
  if (numbers.every((value) => Number.isFinite(value))) return numbers;
  throw new DecodeError(`"${command.slice(0, 30)}" does not hold pairs of numbers`);
}

function spots(command: string, parameters: string): readonly Spot[] {
  if (parameters === '') return [];
  const numbers = numbersOf(command, parameters);
  if (numbers.length % 2 !== 0) {
    throw new DecodeError(`"${command.slice(0, 30)}" does not hold pairs of numbers`);
  }
  const found: Spot[] = [];
  for (let index = 0; index < numbers.length; index += 2) {
    found.push({
      xMm: (numbers[index] as number) / UNITS_PER_MM,
      yMm: (numbers[index + 1] as number) / UNITS_PER_MM,
    });
  }
  return found;
}
