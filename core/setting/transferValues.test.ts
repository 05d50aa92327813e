import { factsOf, FAMILIES } from '#core/stack/families/families.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawCornerPiece } from '#core/job/cornerPiece.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { transferValues } from '#core/setting/transferValues.ts';
import { type Stack } from '#core/stack/layer.ts';
import { NO_DETAILS, openLots } from '#core/stack/materialDetails.ts';
import type { Material } from '#core/stack/material.ts';
import { requireStack } from '#core/stack/measureStack.ts';
import { FAMILY_HABITS } from '#core/threshold/thresholdPriors.ts';
import type { Machine } from '#core/station/machine.ts';
import { describeExposure, snapExposureMm } from '#core/units/depthScale.ts';
import { forceToGf, gfOf, gfToForce, type ForceScale } from '#core/units/forceScale.ts';

const roll = {
  forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1.5 },
} as unknown as Machine;
const desk = {
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
} as unknown as Machine;
const measured = (machine: Machine): Machine => ({
  ...machine,
  forceScale: { ...machine.forceScale, measured: [1, 33].map((force) => ({ force, gf: 10 * force })) },
});
const values: SettingValues = {
  force: 100,
  exposureMm: 0.375,
  speed: 200,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.4,
};

describe('transferValues', () => {
  it('goes through grams, millimetres and mm/s onto the steps of the other machine', () => {
    const { values: there, forceGf } = transferValues(values, roll, desk);
    expect(forceGf).toBe(100);
    expect(there).toMatchObject({ force: 8, speed: 20, exposureMm: 0.4, passes: 1, offsetMm: 0.25 });
  });

  it('is surer when both scales are known in grams, and says so', () => {
    const plain = transferValues(values, roll, desk);
    const sure = transferValues(values, roll, measured(desk));
    expect(plain.isCalibrated).toBe(false);
    expect(sure).toMatchObject({ isCalibrated: true, values: { force: 10 } });
    expect(sure.highForce - sure.lowForce).toBeLessThan(plain.highForce - plain.lowForce);
  });

  it('comes back to the same grams within half a step, wherever both machines reach', () => {
    fc.assert(
      fc.property(fc.integer({ min: 16, max: 390 }), (force) => {
        const there = transferValues({ ...values, force }, roll, desk).values;
        const back = transferValues(there, desk, roll).values;
        expect(Math.abs(back.force - force)).toBeLessThanOrEqual(6.5);
      }),
      { seed: 12 },
    );
  });

  it('stays inside the other machine', () => {
    const strong = transferValues({ ...values, force: 480, exposureMm: 1.4, speed: 600 }, roll, desk).values;
    expect(strong).toMatchObject({ force: 33, exposureMm: 1, speed: 40 });
  });
});

describe('a measured scale', () => {
  const bent: ForceScale = {
    ...desk.forceScale,
    measured: [
      { force: 1, gf: 20 },
      { force: 10, gf: 90 },
      { force: 33, gf: 400 },
    ],
  };

  it('goes to grams and back for every level, straight between its points', () => {
    for (let level = 1; level <= 33; level++) expect(gfToForce(forceToGf(level, bent), bent)).toBe(level);
    expect(forceToGf(10, bent)).toBe(90);
    expect(forceToGf(5.5, bent)).toBeCloseTo(55, 9);
  });

  it('is carried on beyond its ends for what was kept before, but takes no new value there', () => {
    expect(gfOf(40, bent)).toBeGreaterThan(400);
    expect(() => forceToGf(40, bent)).toThrow(/1 to 33 level/);
    expect(gfToForce(9000, bent)).toBe(33);
    expect(gfToForce(0, bent)).toBe(1);
  });
});

describe('suggestValues', () => {
  const stack: Stack = [
    { role: 'face', caliperUm: 80, isMeasured: true },
    { role: 'adhesive', caliperUm: 25, isMeasured: true },
    { role: 'liner', caliperUm: 140, isMeasured: true },
  ];
  const material = { family: 'plainVinyl', details: NO_DETAILS } as unknown as Material;
  const condition = { id: 1, kind: 'bare', stack } as const;

  it('takes offset and overcut from the blade, deeper cuts closing later', () => {
    const blade = { angleDeg: 60, offsetMm: 0.5 } as never;
    const kiss = suggestValues(material, condition, roll, blade, 'kiss', 90).values;
    const through = suggestValues(material, condition, roll, blade, 'through', 200).values;
    expect(kiss.offsetMm).toBe(0.5);
    expect(through.overcutMm).toBeGreaterThan(kiss.overcutMm);
    expect(suggestValues(material, condition, roll, null, 'kiss', 90).values.offsetMm).toBe(0.25);
  });
});

describe('what the trade knows before anybody measured', () => {
  it.each(FAMILIES)('%s has a start stack that can be, a density and a habit', (family) => {
    expect(() => requireStack(factsOf(family).startStack)).not.toThrow();
    expect(factsOf(family).startStack.every(({ isMeasured }) => !isMeasured)).toBe(true);
    expect(factsOf(family).densityKgPerM3).toBeGreaterThan(500);
    expect(FAMILY_HABITS[family].usualGf).toBeGreaterThan(10);
  });

  it('offers the newest lot first and none that is used up', () => {
    const lot = (code: string, receivedOn: string, isArchived = false) => ({
      code,
      receivedOn,
      storage: '',
      humidityPercent: null,
      forcePercent: 0,
      note: '',
      isArchived,
    });
    const lots = [lot('a', '2026-01-01'), lot('b', '2026-05-01'), lot('c', '2026-09-01', true)];
    expect(openLots({ ...NO_DETAILS, lots }).map(({ code }) => code)).toEqual(['b', 'a']);
  });

  it('says how an automatic holder is set', () => {
    const scale = { kind: 'automatic', stepMm: 0.1, maxMm: 1 } as const;
    expect(describeExposure(0.3, scale)).toBe('the machine sets it');
    expect(snapExposureMm(0.34, scale)).toBe(0.3);
  });
});

describe('the corner piece', () => {
  it('is a 10 mm square and a narrow star, both closed, inside 26 x 12 mm', () => {
    const { drawing } = drawCornerPiece();
    expect(drawing).toMatchObject({ widthMm: 26, heightMm: 12, leftOut: [] });
    const [square, star] = drawing.contours;
    expect(measureContour(square!.contour)).toBeCloseTo(40, 6);
    // Ten edges between radii 5 and 5/3 at 36°: each is the third side of that triangle (law of cosines).
    const edge = Math.sqrt(25 + 25 / 9 - 2 * 5 * (5 / 3) * Math.cos(Math.PI / 5));
    expect(measureContour(star!.contour)).toBeCloseTo(10 * edge, 2);
    expect(drawing.contours.every(({ layer }) => layer === 'kiss')).toBe(true);
  });
});
