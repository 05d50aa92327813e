import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { listDialledOnce, numberCuts } from '#core/passes/panelCuts.ts';
import type { Pass } from '#core/passes/plan.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';

const byPanel = { force: false, speed: false };
const pass = (role: CutRole, force: number, more: Partial<Pass> = {}): Pass =>
  ({
    role,
    values: { force, speed: 10, passes: 1, exposureMm: 0.3 },
    strokes: [],
    seat: 1,
    fitted: ['blade'],
    setsExposure: false,
    pauseBefore: null,
    ...more,
  }) as unknown as Pass;
const sticker = [pass('kiss', 14), pass('slit', 29), pass('through', 29)];

/** The fewest cuts that are dialled anew, by trying every choice of number. */
function fewest(forces: readonly number[], count: number, held: readonly number[] = []): number {
  const [force, ...rest] = forces;
  if (force === undefined) return 0;
  if (held.includes(force)) return fewest(rest, count, held);
  if (held.length < count) return fewest(rest, count, [...held, force]);
  return 1 + Math.min(...held.map((_, at) => fewest(rest, count, held.with(at, force))));
}

describe('numbered cuts of a panel', () => {
  it('are dialled once, a number for all passes that are dialled alike, and the run never stops for them', () => {
    const parts = splitParts(sticker, byPanel, 6);
    expect(parts).toHaveLength(1);
    expect(parts[0]!.passes.map(({ panelCut }) => panelCut)).toEqual([1, 2, 2]);
    expect(parts[0]!.before).toBe(
      'Dial cut 1: force 14 and speed 10; cut 2: force 29 and speed 10 at the panel',
    );
    expect(parts[0]!.dials.map(({ roles }) => roles)).toEqual([['kiss'], ['slit', 'through']]);
  });

  it('leave a stop where the panel holds one set of numbers, but none where the next pass is dialled alike', () => {
    const parts = splitParts(sticker, byPanel);
    expect(parts.map(({ passes }) => passes.length)).toEqual([1, 2]);
    expect(parts[1]!.before).toBe('Dial force 29 and speed 10 at the panel');
    expect(parts.flatMap(({ passes }) => passes).every(({ panelCut }) => panelCut === undefined)).toBe(true);
    expect(splitParts(sticker, { force: true, speed: true }, 6)).toHaveLength(1);
  });

  it('carry their seat where a job uses several: the file chooses both with one number', () => {
    const crease = pass('crease', 24, { seat: 2, seatName: 'back' });
    const [part] = splitParts([crease, { ...sticker[2]!, seatName: 'front' }], byPanel, 4);
    expect(part!.passes.map(({ panelCut }) => panelCut)).toEqual([1, 2]);
    expect(part!.before).toBe(
      'Dial cut 1: the back seat, force 24 and speed 10; cut 2: the front seat, force 29 and speed 10 at the panel',
    );
  });

  it('keep what hands do beside dialling apart from it', () => {
    const [first] = splitParts([pass('crease', 20, { pauseBefore: 'Fit the crease tool' })], byPanel, 6);
    expect(first).toMatchObject({ pause: 'Fit the crease tool' });
    expect(first!.before).toBe('Fit the crease tool. Dial cut 1: force 20 and speed 10 at the panel');
  });

  it('hold the tabs where the panel makes them: another length is another cut', () => {
    const own = { cutLengthMm: 9.7, tabLengthMm: 1.02 };
    const perforated = (tabLengthMm: number) =>
      pass('perforated', 29, {
        values: { ...sticker[1]!.values, cutLengthMm: 10, tabLengthMm },
        strokes: [{ contourId: 0, repeat: 0, points: [], isTab: false, ownTabs: own }],
      });
    const numbered = numberCuts([perforated(1), perforated(0.5), pass('through', 29)], byPanel, 6);
    expect(numbered.map(({ cut }) => cut.number)).toEqual([1, 2, 3]);
    expect(listDialledOnce(numbered)[0]).toMatchObject({ tabs: { cutLengthMm: 10, tabLengthMm: 1 } });
  });

  it('are dialled anew as seldom as any choice of numbers allows, and always hold what a pass wants', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 1, max: 4 }),
        (forces, count) => {
          const numbered = numberCuts(
            forces.map((force) => pass('kiss', force)),
            byPanel,
            count,
          );
          expect(numbered.filter(({ isDialledAnew }) => isDialledAnew)).toHaveLength(fewest(forces, count));
          // A panel that is dialled as it is told.
          const panel = new Map(listDialledOnce(numbered).map(({ number, force }) => [number, force]));
          expect(panel.size).toBeLessThanOrEqual(count);
          numbered.forEach(({ cut, isDialledAnew }, index) => {
            if (isDialledAnew) panel.set(cut.number, cut.force);
            expect(panel.get(cut.number)).toBe(forces[index]);
          });
        },
      ),
      { seed: 29, numRuns: 300 },
    );
  });
});
