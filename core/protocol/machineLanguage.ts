import type { z } from 'zod';
import type { CutProgram } from '#core/program/cutProgram.ts';

/** What a machine can be told in a language, as its options stand. */
export interface Abilities {
  /** The file sets force and speed; `always`: no line can be written without it. */
  readonly force: boolean;
  readonly speed: boolean | 'always';
  /** How tabs can be made: by another force along them, by a lifted tool, or by the machine itself. */
  readonly tabs: readonly ('force' | 'lift' | 'native')[];
  /** It chooses among tool seats by itself. */
  readonly seats: boolean;
  /** It chooses a numbered cut of the panel. */
  readonly numberedCuts: boolean;
  /** It can be told over its link to pause and go on, to stop, and it reports what it has done. */
  readonly pause: boolean;
  readonly stop: boolean;
  readonly report: boolean;
}

/** A piece of a written program, sent whole. */
export interface Block {
  readonly text: string;
  /** Strokes of the program, from its first, that are done once everything up to here is done. */
  readonly strokesDone: number;
}

/** What a line means that came back from a machine. */
export type Answer =
  | { readonly kind: 'done' }
  | { readonly kind: 'refused'; readonly reason: string }
  | { readonly kind: 'halted'; readonly reason: string }
  | { readonly kind: 'alive'; readonly isIdle: boolean }
  | { readonly kind: 'noise' };

/**
 * How blocks go out: all in a stream, nothing comes back; or one at a time, each answered. `pause`, `resume`, `stop` and
 * `ask` are obeyed at once, wherever the machine is in what it was sent.
 */
export type Flow =
  | { readonly kind: 'stream' }
  | {
      readonly kind: 'answered';
      readonly hear: (line: string) => Answer;
      readonly pause: string;
      readonly resume: string;
      readonly stop: string;
      /** Asks for a sign of life; empty where the machine knows no such question. */
      readonly ask: string;
    };

/** A machine language: what it is called, what it can do, how it is written and talked. */
export interface MachineLanguage {
  readonly id: string;
  readonly name: string;
  /** Which machines speak it, for whoever fills in the form. */
  readonly about: string;
  readonly file: { readonly type: string; readonly ending: string };
  /**
   * An object schema; every field has a default, its limits, and in its meta a `title` and a `description` for the form;
   * `when` shows it only where another option is this, `isRare` puts it apart.
   */
  readonly options: z.ZodObject;
  readonly abilities: (options: unknown) => Abilities;
  /** Blocks of printable ASCII; joined they are the machine file. */
  readonly write: (program: CutProgram, options: unknown) => readonly Block[];
  readonly flow: (options: unknown) => Flow;
  /** Moves the head 10 mm to the right and back with the tool up, to try a link. */
  readonly nudge: (options: unknown) => readonly Block[];
}

interface LanguageSpec<Schema extends z.ZodObject> {
  readonly id: string;
  readonly name: string;
  readonly about: string;
  readonly file: MachineLanguage['file'];
  readonly options: Schema;
  readonly abilities: (options: z.output<Schema>) => Abilities;
  readonly write: (program: CutProgram, options: z.output<Schema>) => readonly Block[];
  readonly flow: (options: z.output<Schema>) => Flow;
  readonly nudge: (options: z.output<Schema>) => readonly Block[];
}

/**
 * Makes a language of its parts: options are parsed before any part sees them.
 *
 * @throws ZodError from any part that is given options the schema refuses
 * @example defineLanguage({ id: 'toy', name: 'Toy' }).id // 'toy'
 */
export function defineLanguage<Schema extends z.ZodObject>(spec: LanguageSpec<Schema>): MachineLanguage {
  return {
    ...spec,
    abilities: (options) => spec.abilities(spec.options.parse(options)),
    write: (program, options) => spec.write(program, spec.options.parse(options)),
    flow: (options) => spec.flow(spec.options.parse(options)),
    nudge: (options) => spec.nudge(spec.options.parse(options)),
  };
}
