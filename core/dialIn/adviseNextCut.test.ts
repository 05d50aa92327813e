import { describe, expect, it } from 'vitest';
import { adviseNextCut } from '#core/dialIn/adviseNextCut.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { findWindow } from '#core/threshold/findWindow.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { sheetModel } from '#core/threshold/sheetModel/sheetModel.ts';
import type { SheetTraits, Trial } from '#core/threshold/trial.ts';

const vinyl: SheetTraits = {
  family: 'printableVinyl',
  stack: [
    { role: 'face', caliperUm: 80, isMeasured: true },
    { role: 'adhesive', caliperUm: 25, isMeasured: true },
    { role: 'liner', caliperUm: 140, isMeasured: true },
  ],
  darkness: 0,
};
const conditions = { passes: 1, speedMmPerS: 100, bladeMetres: 0 };
const forces = Array.from({ length: 96 }, (_, index) => 20 + index * 5);
const model = sheetModel(3);
const place = { traits: vinyl, materialId: 1, machineId: 1, condition: 'bare', lot: '', colour: '' };
const belief = sheetPrior(place, null);

function ask(trials: readonly Trial[]) {
  const posterior = model.fit({ belief, conditions }, trials);
  const window = findWindow(posterior, 'kiss', forces);
  return { advice: adviseNextCut(posterior, 'kiss', forces, window.best, trials), window };
}

/** A sheet whose face parts at `lowGf` and whose liner is gouged from `highGf`, cut with 5 % noise. */
function simulate(lowGf: number, highGf: number, seed: number) {
  const random = seededRandom(seed);
  const trials: Trial[] = [];
  for (let count = 0; count < 15; count++) {
    const { advice } = ask(trials);
    if (advice.kind === 'keep' || advice.kind === 'noWindow') return { trials, advice };
    const acting = advice.next.forceGf * Math.exp(0.05 * drawNormal(random));
    const inside = Math.log(acting / lowGf) / Math.log(highGf / lowGf);
    const grade: DepthGrade = inside < -0.3 ? 1 : inside < 0 ? 2 : inside < 0.4 ? 3 : inside < 1 ? 4 : 5;
    trials.push({ ...conditions, forceGf: advice.next.forceGf, grade });
  }
  return { trials, advice: ask(trials).advice };
}

describe('adviseNextCut', () => {
  it('starts on the low side: never above the best guess', () => {
    const { advice, window } = ask([]);
    expect(advice.kind).toBe('cut');
    expect(advice.next.forceGf).toBeLessThanOrEqual(window.best.forceGf + 5);
  });

  it('goes up after an untouched face and down after a breached liner', () => {
    expect(ask([{ ...conditions, forceGf: 60, grade: 0 }]).advice.next.forceGf).toBeGreaterThan(60);
    expect(ask([{ ...conditions, forceGf: 60, grade: 6 }]).advice.next.forceGf).toBeLessThan(60);
  });

  it('finds the window of wide and narrow simulated sheets in at most eight cuts and keeps inside it', () => {
    for (const [low, high, seed] of [
      [55, 110, 1],
      [90, 170, 2],
      [38, 70, 3],
      [120, 190, 4],
    ] as const) {
      const { trials, advice } = simulate(low, high, seed);
      expect(advice.kind).toBe('keep');
      expect(trials.length).toBeLessThanOrEqual(8);
      expect(advice.next.bestGf).toBeGreaterThan(low);
      expect(advice.next.bestGf).toBeLessThan(high);
    }
  });

  it('asks for the kept force itself to have cut right before keeping', () => {
    const clean = [
      { ...conditions, forceGf: 60, grade: 2 as const },
      { ...conditions, forceGf: 75, grade: 3 as const },
      { ...conditions, forceGf: 130, grade: 4 as const },
      { ...conditions, forceGf: 150, grade: 5 as const },
      { ...conditions, forceGf: 65, grade: 2 as const },
      { ...conditions, forceGf: 140, grade: 5 as const },
    ];
    const { advice } = ask(clean);
    expect(['confirm', 'cut']).toContain(advice.kind);
  });
});
