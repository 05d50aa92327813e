import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { listRunStrokes } from '#core/program/listRunStrokes.ts';
import { cutMetresOf } from '#core/run/measureRun.ts';
import { passesDone } from '#core/program/passesDone.ts';
import { samplePlan } from '#core/tests/sampleJob.ts';

const values = { force: 90, exposureMm: 0.3, speed: 100, offsetMm: 0.25, overcutMm: 0 };
const svg = `<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none">
  <path stroke="#ff0000" d="M10 10.1234H30"/><path stroke="#0000ff" d="M10 40H50"/></svg>`;
const plan = samplePlan(
  readSvg(svg).contours,
  { '|#ff0000': 'kiss', '|#0000ff': 'crease' },
  { kiss: { ...values, passes: 3 }, crease: { ...values, passes: 1 } },
);
const strokes = listRunStrokes(plan);

describe('the strokes of a run', () => {
  it('are those of the plan in its order, points to 0.01 mm', () => {
    expect(strokes).toHaveLength(4);
    const kiss = strokes.filter(({ operation }) => operation === 'kiss');
    expect(kiss.map(({ repeat }) => repeat)).toEqual([0, 1, 2]);
    expect(kiss[0]!.points[0]).toEqual({ x: 10, y: 10.12 });
  });

  it('count as many passes as the path had', () => {
    expect(passesDone(strokes, 'kiss')).toBe(3);
    expect(passesDone(strokes, 'crease')).toBe(1);
    expect(passesDone([...strokes, { ...strokes[0]!, operation: 'kiss', repeat: 3 }], 'kiss')).toBe(4);
  });

  it('wear the blade by what was acknowledged, without creases', () => {
    const all = strokes.map((_, index) => ({ index, spans: [] }));
    expect(cutMetresOf({ strokes, outcomes: [] })).toBe(0);
    expect(cutMetresOf({ strokes, outcomes: all })).toBeCloseTo(0.06, 4);
    const one = strokes.findIndex(({ operation }) => operation === 'kiss');
    expect(cutMetresOf({ strokes, outcomes: all.slice(one, one + 1) })).toBeCloseTo(0.02, 4);
  });
});
