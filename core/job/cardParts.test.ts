import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { composeCard, onlyCell, type TestCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { cardParts, listCardDials, writeCardParts } from '#core/job/cardParts.ts';
import { machine as byFile, values } from '#core/tests/exampleScope.ts';
import type { Machine } from '#core/station/machine.ts';

const cardOf = (forces: readonly number[]) =>
  composeCard(
    makeTestPiece('square'),
    forces.map((force) => ({ force, speed: 200, passes: 1 })),
    { x: 10, y: 20 },
  );
const card = cardOf([140, 120, 160]);
const onePanel: Machine = { ...byFile, numbersOwner: 'panel' };
const numbered = (panelCuts: number): Machine => ({ ...onePanel, panelCuts });
const fileOf = (what: TestCard, machine: Machine) =>
  writeCardParts(what, cardParts(what, 'kiss', values, machine), 297, machine);
const toolsIn = (file: string) => [...file.matchAll(/SP(\d+);/g)].map(([, number]) => Number(number));

describe('the file of a test card', () => {
  it('carries a force for each cell where files do', () => {
    expect(fileOf(card, byFile).match(/FS\d+/g)).toEqual(['FS140', 'FS120', 'FS160']);
  });

  it('is refused where one file would cut all cells alike, and is there for each cell', () => {
    expect(() => fileOf(card, onePanel)).toThrow(/1 at 140, 2 at 120, 3 at 160/);
    expect(fileOf(onlyCell(card, 1), onePanel)).not.toMatch(/FS/);
    const alone = onlyCell(card, 2);
    expect(alone.cells.map(({ force }) => force)).toEqual([160]);
    expect(alone.strokes.length).toBeGreaterThan(4);
    expect(() => onlyCell(card, 3)).toThrow(/3 cells, and none 4/);
  });

  it('chooses a numbered cut for each force where the panel holds as many, and is refused where it does not', () => {
    const file = fileOf(card, numbered(4));
    expect(toolsIn(file).filter((number) => number > 0)).toEqual([1, 2, 3]);
    expect(file).not.toMatch(/FS/);
    expect(() => fileOf(card, numbered(2))).toThrow(/holds 2 numbered cuts, and this card wants 3/);
  });

  it('is dialled for as the screen says: every number that it chooses, with the force of its cell (seeded)', () => {
    const forces = fc.uniqueArray(fc.integer({ min: 20, max: 400 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(forces, fc.integer({ min: 1, max: 9 }), (chosen, count) => {
        const machine = numbered(count);
        const parts = cardParts(cardOf(chosen), 'kiss', values, machine);
        const shown = listCardDials(chosen, 200, machine);
        expect(parts[0]!.dials.map(({ number, force }) => [number, force])).toEqual(
          shown.map(({ number, force }) => [number, force]),
        );
        // As few stops as there are forces beyond what the panel holds.
        expect(parts).toHaveLength(1 + Math.max(0, chosen.length - count));
      }),
      { seed: 16, numRuns: 60 },
    );
    expect(listCardDials([70, 90], 200, byFile)).toEqual([]);
  });
});
