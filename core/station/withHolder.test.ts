import { expect, it } from 'vitest';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { withHolder } from '#core/station/withHolder.ts';
import { machine, station } from '#core/tests/exampleScope.ts';
import { describeExposure } from '#core/units/depthScale.ts';

it('sets a deep holder by its own dial: the same figure there is another depth (common practice, no source: T44)', () => {
  const { loaded } = station;
  const blade = { ...station.blade!, reachMm: 2 };
  const dialled = (dialMmPerStep: number | null) => {
    const own = withHolder(machine, { ...blade, dialMmPerStep });
    const { values } = suggestValues(loaded.material, loaded.condition, own, blade, 'kiss', 70);
    return describeExposure(values.exposureMm, own.depthScale);
  };
  const [standard, deep] = [dialled(0.1), dialled(0.25)];
  expect(standard).toMatch(/^dial \d+$/);
  expect(deep).toMatch(/^dial \d+$/);
  expect(Number(deep.slice(5))).toBeLessThan(Number(standard.slice(5)));
  expect(withHolder(machine, { ...blade, dialMmPerStep: null })).toBe(machine);
  expect(withHolder(machine, null)).toBe(machine);
});
