import { describe, expect, it } from 'vitest';
import type { Layer, LayerRole } from '#core/stack/layer.ts';
import { caliperOf, measureStack } from '#core/stack/measureStack.ts';
import { gradesOfStack, targetGrades } from '#core/stack/depthGrade.ts';

const layer = (role: LayerRole, caliperUm: number): Layer => ({ role, caliperUm, isMeasured: true });
const vinyl = [
  layer('laminate', 40),
  layer('ink', 6),
  layer('face', 80),
  layer('adhesive', 25),
  layer('liner', 140),
];

describe('measureStack', () => {
  it('finds the depth to the liner and the whole', () => {
    expect(measureStack(vinyl)).toEqual({ totalUm: 291, toLinerUm: 151, linerUm: 140, isLayered: true });
    expect(caliperOf(vinyl, 'face')).toBe(80);
  });

  it('takes a single body whole', () => {
    expect(measureStack([layer('body', 290)])).toEqual({
      totalUm: 290,
      toLinerUm: 290,
      linerUm: 0,
      isLayered: false,
    });
  });

  it.each([
    ['nothing', [], /at least one layer/],
    ['a paper-thin error', [layer('face', 0)], /layer 1 \(face\) is 0 µm/],
    ['not a number', [layer('face', Number.NaN)], /NaN µm/],
    ['a liner on top', [layer('liner', 60), layer('face', 80)], /order from the top/],
    ['two faces', [layer('face', 80), layer('face', 80)], /exactly one face or body/],
    ['a body on a liner', [layer('body', 80), layer('liner', 80)], /no liner/],
  ])('refuses %s', (_, stack, message) => {
    expect(() => measureStack(stack)).toThrow(message);
  });
});

describe('targetGrades', () => {
  it('wants 3 to 4 for kiss, 7 for through, and no kiss where nothing lies below', () => {
    expect(targetGrades('kiss', true)).toEqual([3, 4]);
    expect(targetGrades('through', true)).toEqual([7]);
    expect(targetGrades('kiss', false)).toBeNull();
    expect(gradesOfStack(false)).toEqual([0, 1, 2, 7, 8]);
  });
});
