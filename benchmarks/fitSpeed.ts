import { seededRandom } from '#core/random/seededRandom.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { drawMachine } from '#core/practice/hiddenMachine.ts';
import { drawSheet, seeCut } from '#core/practice/hiddenSheet.ts';
import { PLAIN_WORLD } from '#core/practice/worlds.ts';

/** How long a book of so many trials takes. */
export interface FitTiming {
  readonly trials: number;
  readonly coldMs: number;
  readonly iterations: number;
  /** From what was known before the last five trials. */
  readonly warmMs: number;
  /** What is believed of one sheet, its own trials taken out. */
  readonly believeMs: number;
}

const MACHINES = 8;
const SHARES = [0.6, 0.8, 1, 1.2, 1.5];

/** Fits books of growing size, cold and from the knowledge before the newest sheet. */
export function timeFits(sizes: readonly number[]): readonly FitTiming[] {
  return sizes.map((trials) => {
    const book = writeBook(trials);
    const before = fitKnowledge(book.slice(0, -1));
    const cold = timed(() => fitKnowledge(book));
    const warm = timed(() => fitKnowledge(book, { start: before }));
    const last = book.at(-1) as EvidenceSheet;
    const family = book.filter(({ materialId }) => materialId === last.materialId);
    const believed = timed(() => sheetPrior(last, cold.result, { learnt: family, all: family }));
    return {
      trials,
      coldMs: cold.ms,
      iterations: cold.result.iterations,
      warmMs: warm.ms,
      believeMs: believed.ms,
    };
  });
}

/** A book of sheets with five cuts each, two sheets (lots) to a material. */
export function writeBook(trials: number): readonly EvidenceSheet[] {
  const random = seededRandom(trials);
  const machines = Array.from({ length: MACHINES }, (_, index) => drawMachine(index + 1, random));
  return Array.from({ length: Math.ceil(trials / SHARES.length) }, (_, index): EvidenceSheet => {
    const machine = machines[index % MACHINES] as (typeof machines)[number];
    const sheet = drawSheet(machine, PLAIN_WORLD, random);
    return {
      traits: sheet.told,
      materialId: Math.floor(index / 2),
      machineId: machine.id,
      condition: 'bare',
      lot: index % 2 === 0 ? '' : 'second',
      colour: '',
      trials: SHARES.map((share) => {
        const forceGf = (sheet.edgesGf[2] as number) * share;
        return { ...sheet.conditions, forceGf, grade: seeCut(sheet, forceGf, PLAIN_WORLD, random) };
      }),
    };
  });
}

function timed<Result>(work: () => Result): { readonly ms: number; readonly result: Result } {
  const started = performance.now();
  const result = work();
  return { ms: performance.now() - started, result };
}
