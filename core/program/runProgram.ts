import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { passesDone } from '#core/program/passesDone.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import { wordDials, type Part } from '#core/passes/splitParts.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import type { PrintedMarks } from '#core/sheet/marks/marks.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { SeatGround, SeatUse } from '#core/station/machine.ts';

/** One pass of a program: which strokes of the run it cuts, and how. */
export interface ProgramPass {
  readonly operation: CutRole;
  readonly values: SettingValues;
  readonly seat: number;
  /** The numbered cut of the panel that it runs with, where the panel holds several. */
  readonly panelCut?: number | undefined;
  /** Strokes `from` up to but not including `to` of the run. */
  readonly from: number;
  readonly to: number;
}

/** What is sent between two pauses. */
export interface ProgramPart {
  readonly passes: readonly ProgramPass[];
  readonly before: string | null;
  readonly exposureMm: number;
  /** What sits in each tool seat, from the first; left out in programs from before it was followed. */
  readonly fitted?: readonly SeatUse[] | undefined;
}

/** Everything a run needs to be sent again from any stroke on, whatever becomes of its job meanwhile. */
export interface RunProgram extends ProgramFacts {
  readonly parts: readonly ProgramPart[];
}

/** What stays the same for all parts of a program. */
export interface ProgramFacts {
  /** How the machine wants its file. */
  readonly file: FileOptions;
  readonly sheetHeightMm: number;
  /** Travel of the blade before the run, m. */
  readonly bladeMetres: number;
  /** How the sheet is held: the tack of its mat, or `null` on a roll; and its own adhesive, µm. */
  readonly hold?: { readonly tack: number | null; readonly adhesiveUm?: number | undefined } | undefined;
  /** Printed with marks: the machine finds the print, and is off by what it is off. */
  readonly isPrinted?: boolean | undefined;
  /** The marks that are printed on it, in the order of their list; left out in programs from before they were told. */
  readonly marks?: PrintedMarks | undefined;
  /** What runs under each tool seat, where it makes a difference. */
  readonly grounds?: readonly (SeatGround | null)[] | undefined;
  /** How much light it throws back, 0 to 1. */
  readonly gloss?: number | undefined;
  /** What lies in the machine, as hands would know it. */
  readonly sheet: {
    readonly key: string;
    readonly family: string;
    readonly darkness: number;
    readonly layers: readonly { readonly role: string; readonly caliperUm: number }[];
  };
}

/**
 * A program of parts whose strokes follow one another in the run.
 *
 * @example makeProgram([], program).parts // []
 */
export function makeProgram(parts: readonly Part[], facts: ProgramFacts): RunProgram {
  let from = 0;
  return {
    ...facts,
    parts: parts.map(({ passes, before, exposureMm, fitted }) => ({
      before,
      exposureMm,
      fitted,
      passes: passes.map(({ role, values, seat, panelCut, strokes }) => {
        const chosen = panelCut === undefined ? {} : { panelCut };
        const pass = { operation: role, values, seat, ...chosen, from, to: from + strokes.length };
        from = pass.to;
        return pass;
      }),
    })),
  };
}

/**
 * The first stroke of a part, and the first after it.
 *
 * @example spanOfPart(program.parts[0]) // { from: 0, to: 5 }
 */
export function spanOfPart({ passes }: ProgramPart): { readonly from: number; readonly to: number } {
  return { from: passes[0]?.from ?? 0, to: passes.at(-1)?.to ?? 0 };
}

/**
 * A program with one pass cut once more at its end, and the strokes that it adds to the run.
 *
 * @example addRepeat(program, [], 'through') // null
 */
export function addRepeat(
  program: RunProgram,
  strokes: readonly RunStroke[],
  operation: CutRole,
): { readonly program: RunProgram; readonly strokes: readonly RunStroke[] } | null {
  const parts = program.parts;
  const pass = parts.flatMap(({ passes }) => passes).find((one) => one.operation === operation);
  const part = parts.find(({ passes }) => passes.includes(pass as ProgramPass));
  if (!pass || !part) return null;
  // Each path once, whatever the setting's passes: a repeat is one pass more.
  const again = strokes.slice(pass.from, pass.to).filter(({ repeat }) => repeat === 0);
  const done = passesDone(strokes, operation);
  const from = strokes.length;
  return {
    strokes: again.map((stroke) => ({ ...stroke, repeat: done })),
    program: {
      ...program,
      parts: [
        ...parts,
        {
          before: dialBefore(pass, program),
          exposureMm: part.exposureMm,
          fitted: part.fitted,
          passes: [{ ...pass, from, to: from + again.length }],
        },
      ],
    },
  };
}

/** What hands dial before a pass that is cut once more, where its numbers are not those that were dialled last. */
function dialBefore({ values, panelCut }: ProgramPass, { parts, file }: RunProgram): string | null {
  const last = parts.at(-1)?.passes.at(-1)?.values;
  // A numbered cut is chosen by the file.
  if (panelCut !== undefined || !last) return null;
  const force = !file.carries.force && values.force !== last.force ? values.force : null;
  const speed = !file.carries.speed && values.speed !== last.speed ? values.speed : null;
  if (force === null && speed === null) return null;
  return wordDials([{ number: 1, roles: [], seatName: null, force, speed, tabs: null }], false);
}
