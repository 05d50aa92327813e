import { describe, expect, it } from 'vitest';
import { listExposureSchools } from '#core/exposure/exposureSchools.ts';
import { overcutFor, usualOffsetMm } from '#core/exposure/bladeGeometry.ts';
import { correctionsOf, forceFactor } from '#core/setting/correctForce.ts';
import { diffValues, mergeValues } from '#core/setting/diffValues.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { settleValues } from '#core/setting/settleValues.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { fitTack, tackIndex } from '#core/wear/tackIndex.ts';

const machine = {
  name: 'Dunlin',
  operations: ['kiss', 'through', 'perforated', 'crease'],
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
} as unknown as Machine;
const values: SettingValues = {
  force: 12.4,
  exposureMm: 0.3,
  speed: 20.2,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.5,
  tabForce: 30,
  tool: 'left over',
};

describe('settleValues', () => {
  it('snaps to the steps and drops what belongs to other operations', () => {
    expect(settleValues(values, 'kiss', machine, null)).toEqual({
      force: 12,
      exposureMm: 0.3,
      speed: 20,
      passes: 1,
      offsetMm: 0.25,
      overcutMm: 0.5,
    });
  });

  it('says T5: tabs go by the kiss force, have one of their own, or are left whole (common practice, no source)', () => {
    const perforate = (tabs: Partial<SettingValues>, kiss: number | null) =>
      settleValues({ ...values, force: 24, tabForce: undefined, ...tabs }, 'perforated', machine, kiss);
    expect(perforate({}, 14)).toMatchObject({
      force: 24,
      tabWay: 'kissForce',
      tabForce: 14,
      cutLengthMm: 12,
      tabLengthMm: 1,
    });
    // A tip that is half lifted along the tab: up force 2 where the kiss takes 14.
    expect(perforate({ tabForce: 2 }, 14)).toMatchObject({ tabWay: 'ownForce', tabForce: 2 });
    expect(perforate({ tabForce: 2, tabWay: 'kissForce' }, 14)).toMatchObject({ tabForce: 14 });
    // Carton has no kiss: a tab force of its own, or none.
    expect(perforate({ tabForce: 5 }, null)).toMatchObject({ tabWay: 'ownForce', tabForce: 5 });
    expect(perforate({}, null)).toMatchObject({ tabWay: 'lifted' });
    expect(perforate({ tabWay: 'lifted', tabForce: 5 }, 14).tabForce).toBeUndefined();
    expect(() => perforate({ tabWay: 'kissForce' }, null)).toThrow(/keep a kiss setting first, or give/);
    expect(() => perforate({ tabForce: 24 }, 14)).toThrow(/cut as deep as the rest/);
    expect(() => perforate({ tabWay: 'ownForce' }, 14)).toThrow(/force of the tabs is missing/);
  });

  it('says T16: a crease has offset zero (common practice, no source), and a tool', () => {
    expect(settleValues({ ...values, tool: ' ' }, 'crease', machine, null)).toMatchObject({
      offsetMm: 0,
      exposureMm: 0,
      tool: 'crease tool',
    });
  });

  it('says what the machine can do instead of bending a value', () => {
    const settle = (change: Partial<SettingValues>) => () =>
      settleValues({ ...values, ...change }, 'kiss', machine, null);
    expect(settle({ force: 40 })).toThrow(/1 to 33 level/);
    expect(settle({ speed: 90 })).toThrow(/speed 90 cm\/s .* 1 to 40 cm\/s/);
    expect(settle({ exposureMm: 1.4 })).toThrow(/at most 1 mm/);
    expect(settle({ passes: 40 })).toThrow(/passes 40 is outside 1 to 12/);
    expect(() => settleValues(values, 'score', machine, null)).toThrow(/Dunlin cannot do this: score/);
  });
});

describe('diffValues and mergeValues', () => {
  const base = settleValues({ ...values, force: 12 }, 'kiss', machine, null);

  it('tell what changed, and nothing when nothing did', () => {
    expect(diffValues(base, base)).toEqual([]);
    expect(diffValues(base, { ...base, force: 14 })).toEqual([{ field: 'force', before: 12, after: 14 }]);
  });

  it('put both changes together and name what both changed differently', () => {
    const theirs = { ...base, force: 14, speed: 15 };
    const { values: merged, conflicts } = mergeValues(base, theirs, { ...base, force: 16, passes: 2 });
    expect(merged).toEqual({ ...base, force: 14, speed: 15, passes: 2 });
    expect(conflicts).toEqual([{ field: 'force', before: 12, after: 14, mine: 16 }]);
    expect(mergeValues(base, theirs, { ...base, force: 14 }).conflicts).toEqual([]);
  });
});

const vinyl: Stack = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 140, isMeasured: true },
];
const holder = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 } as const;

describe('exposure', () => {
  it('by each school: the figure is the default, hands carry the caution', () => {
    const schools = listExposureSchools(vinyl, holder, 0.9);
    expect(schools.map(({ id, isDefault }) => [id, isDefault])).toEqual([
      ['figure', true],
      ['stackDeep', false],
      ['doubledSheet', false],
      ['foldedCorner', false],
    ]);
    expect(schools.filter(({ caution }) => caution).map(({ id }) => id)).toEqual([
      'doubledSheet',
      'foldedCorner',
    ]);
    expect(schools[1]).toMatchObject({ exposureMm: 0.25, onHolder: '½ turn from flush' });
    // Folded in three: the top layer parts, the second is just marked. It ends where the doubled sheet does.
    expect(schools[3]!.exposureMm).toBe(schools[2]!.exposureMm);
    expect(schools[3]!.exposureMm).toBeLessThan(0.33);
  });

  it('stays in T1: film at 0.2 to 0.5 mm (common practice, no source), and says when a blade is too short', () => {
    const [figure] = listExposureSchools(vinyl, holder, 0.2);
    expect(figure!.exposureMm).toBeGreaterThanOrEqual(0.2);
    expect(figure!.exposureMm).toBeLessThanOrEqual(0.5);
    expect(figure!.limit).toMatch(/reaches 0.20 mm/);
  });

  it('closes corners at full depth: a flat edge needs more overcut than a steep one', () => {
    expect(overcutFor(0.15, 45, 0.25)).toBeCloseTo(0.4, 2);
    expect(overcutFor(0.15, 60, 0.25)).toBeCloseTo(0.25 + 0.15 / Math.sqrt(3), 2);
    expect(overcutFor(0.15, 30, 0.2)).toBeGreaterThan(overcutFor(0.15, 60, 0.2));
    expect(overcutFor(0.15, 90, 0.5)).toBe(0.5);
    expect([30, 45, 60].map(usualOffsetMm)).toEqual([0.2, 0.25, 0.5]);
  });
});

describe('tackIndex', () => {
  const fresh = { tack: 'standard', uses: 0, ageDays: 0, usesSinceCleaned: 0 } as const;

  it('falls with use, age and lint, and washing brings some back', () => {
    expect(tackIndex(fresh)).toBe(70);
    expect(tackIndex({ ...fresh, uses: 25 })).toBeCloseTo(47, 0);
    expect(tackIndex({ ...fresh, uses: 25, usesSinceCleaned: 25 })).toBeLessThan(
      tackIndex({ ...fresh, uses: 25 }),
    );
    expect(tackIndex({ ...fresh, ageDays: 800 })).toBeLessThan(35);
  });

  it('says T14: a strong fresh mat tears a paper liner, a weak one lets a slick carrier slip (common practice, no source)', () => {
    expect(fitTack(tackIndex({ ...fresh, tack: 'strong' }), 'stickerPaper')).toBe('tears');
    expect(fitTack(tackIndex({ ...fresh, uses: 40 }), 'transferFilm')).toBe('slips');
    expect(fitTack(tackIndex(fresh), 'cardstock')).toBe('suits');
  });
});

describe('correctionsOf', () => {
  const material = {
    details: {
      colours: [{ name: 'navy', forcePercent: 6 }],
      lots: [
        { code: '26-C', forcePercent: -3 },
        { code: '26-B', forcePercent: 0 },
      ],
    },
  } as unknown as Material;

  it('multiplies what colour and lot add, and leaves out what adds nothing', () => {
    const both = correctionsOf(material, 'navy', '26-C');
    expect(both.map(({ kind }) => kind)).toEqual(['colour', 'lot']);
    expect(forceFactor(both)).toBeCloseTo(1.06 * 0.97, 9);
    expect(correctionsOf(material, '', '26-B')).toEqual([]);
    expect(forceFactor([])).toBe(1);
  });
});
