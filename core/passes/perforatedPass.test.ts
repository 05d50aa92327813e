import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { listPerforated } from '#core/passes/listPerforated.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { derivePerforated } from '#core/setting/derivePerforated.ts';
import { plotterFile, samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';

const values = (force: number) => ({
  force,
  exposureMm: 0.4,
  speed: 100,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.5,
});
const draw = (inside: string) =>
  readSvg(`<svg width="100mm" height="100mm" viewBox="0 0 100 100" fill="none" stroke="#f00">${inside}</svg>`)
    .contours;
const box = draw('<rect x="10" y="10" width="60" height="40"/>');
const roles = { '|#ff0000': 'perforated' } as const;
const roll = { ...samplePlanMachine, kind: 'rollFed' as const };
const plan = (lines: typeof box, perforated: ReturnType<typeof derivePerforated>) =>
  samplePlan(lines, roles, { perforated }, { machine: roll }).passes[0]!;

describe('tabs of carton, which has no kiss', () => {
  const whole = plan(box, derivePerforated(values(250), null));
  const pressed = plan(box, { ...derivePerforated(values(250), null), tabWay: 'ownForce', tabForce: 50 });

  it('are left whole, or pressed at a force of their own (common practice, no source: T5)', () => {
    expect(whole.strokes.some(({ isTab }) => isTab)).toBe(false);
    expect(writeMachineFile([pressed], 100, plotterFile())).toMatch(/FS50;/);
    expect(pressed.strokes.filter(({ isTab }) => isTab)).toHaveLength(pressed.perforation!.tabs);
  });

  it('hold alike by what remains of them: as many are counted either way', () => {
    const [left] = listPerforated(whole);
    const [cut] = listPerforated(pressed);
    expect(left!.tabs).toBe(whole.perforation!.tabs);
    expect(cut!.tabs).toBe(left!.tabs);
    expect(left!.areaMm2).toBeCloseTo(2400, -1);
  });

  it('are made short for a small piece, and a smaller one is left uncut with the reason', () => {
    const small = plan(draw('<circle cx="20" cy="20" r="0.6"/>'), derivePerforated(values(250), null));
    expect(small.perforation).toMatchObject({ tabs: 2, kissOnly: [] });
    const tiny = plan(
      draw('<circle cx="20" cy="20" r="0.3"/><rect x="10" y="10" width="60" height="40"/>'),
      derivePerforated(values(250), null),
    );
    expect(tiny.perforation!.kissOnly).toEqual([
      { contourId: 0, reason: expect.stringMatching(/no room for two tabs.*left uncut/) },
    ]);
    expect(tiny.strokes.every(({ contourId }) => contourId === 1)).toBe(true);
  });
});
