import { conditionOfStack, type Material, nameCondition } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { describe, expect, it } from 'vitest';
import { listCautions } from '#core/station/listCautions.ts';
import type { Blade, LoadedSheet, Mat, Station } from '#core/station/station.ts';
import { judgeGrade } from '#core/stack/judgeGrade.ts';

const machine = { kind: 'matFed' } as Station['machine'];
const blade = { number: 5, travelMetres: 348, lifeMetres: 360 } as Blade;
const mat = { number: 3, uses: 31 } as Mat;
const now = new Date('2027-03-01T09:00:00Z');

describe('listCautions', () => {
  it('names a tired blade and a mat that wants a roller, and always the hands', () => {
    const texts = listCautions({ machine, blade, mat, loaded: null }, now).map((caution) => caution.text);
    expect(texts.join(' ')).toMatch(/Mat 3 has 31 loads.*Blade 5 is at 348 of about 360 m.*Power off/);
  });

  it('says what is missing and nothing about what is fresh', () => {
    const missing = listCautions({ machine, blade: null, mat: null, loaded: null }, now);
    expect(missing.map((caution) => caution.kind)).toEqual(['mat', 'blade', 'hands']);
    const fresh = listCautions(
      { machine, blade: { ...blade, travelMetres: 10 }, mat: { ...mat, uses: 2 }, loaded: null },
      now,
    );
    expect(fresh).toHaveLength(1);
  });
});

describe('cautions of a sheet on a mat', () => {
  const details = {
    ...NO_DETAILS,
    isMirrored: true,
    neverFor: ['ovens'],
    lots: [{ code: '27-A', note: 'feels harder' } as never],
  };
  const material = { family: 'transferFilm', cautions: ['Slick carrier.'], details } as unknown as Material;
  const loaded = { material, lot: '27-A', colour: '' } as unknown as LoadedSheet;
  const worn = {
    number: 3,
    tack: 'light',
    uses: 30,
    usesAtRestick: 0,
    usesAtCleaning: 0,
    hasGrooves: true,
  } as Mat;
  const texts = (one: Mat) =>
    listCautions({ machine, blade, mat: one, loaded }, now)
      .map(({ text }) => text)
      .join(' ');

  it('name mirroring, the lot, what it is never for, a mat that slips and its grooves', () => {
    expect(texts(worn)).toMatch(
      /Slick carrier\..*Cut it mirrored\..*Lot 27-A: feels harder\..*Never for ovens\..*may slip.*deep grooves/,
    );
  });

  it('say nothing of a mat that suits, and warn of one that tears', () => {
    const fresh = { ...worn, tack: 'standard', uses: 1, hasGrooves: false } as Mat;
    expect(texts(fresh)).not.toMatch(/slip|grooves|lighter/);
    const paper = { ...loaded, material: { ...material, family: 'stickerPaper' } } as LoadedSheet;
    const strong = { ...fresh, tack: 'strong' } as Mat;
    const said = listCautions({ machine, blade, mat: strong, loaded: paper }, now).map(({ text }) => text);
    expect(said.join(' ')).toMatch(/take a lighter one/);
  });

  it('go by age and by how the tack felt under a hand, as every other list does', () => {
    const young = { ...worn, tack: 'standard', uses: 1, hasGrooves: false } as Mat;
    expect(texts({ ...young, firstUsedAt: '2024-03-01T09:00:00Z' })).toMatch(/it may slip/);
    // Reckoned at 66; it came off by itself.
    expect(texts({ ...young, feltShare: 15 / 66 })).toMatch(/weak \(tack 15\)/);
  });
});

describe('grades and conditions', () => {
  it('are judged against what the operation wants', () => {
    expect(([2, 3, 4, 5] as const).map((grade) => judgeGrade(grade, 'kiss'))).toEqual([
      'under',
      'right',
      'right',
      'over',
    ]);
    expect(([6, 7, 8] as const).map((grade) => judgeGrade(grade, 'through'))).toEqual([
      'under',
      'right',
      'over',
    ]);
  });

  it('are named after the stack', () => {
    const face = { role: 'face', caliperUm: 80, isMeasured: true } as const;
    expect(conditionOfStack([face])).toBe('bare');
    expect(conditionOfStack([{ ...face, role: 'ink' }, face])).toBe('printed');
    expect(conditionOfStack([{ ...face, role: 'laminate' }, { ...face, role: 'ink' }, face])).toBe(
      'laminated',
    );
    expect(nameCondition('Herringglass', 'printed')).toBe('Herringglass, printed');
  });
});
