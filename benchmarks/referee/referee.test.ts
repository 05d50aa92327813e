import { beforeAll, describe, expect, it } from 'vitest';
import { CONTENDERS } from '#benchmarks/referee/contenders.ts';
import { dealSheets, judge, type Score } from '#benchmarks/referee/judge.ts';
import { drawMachine } from '#core/practice/hiddenMachine.ts';
import { drawSheet, seeCut, trueChance } from '#core/practice/hiddenSheet.ts';
import { HARD_WORLD, PLAIN_WORLD } from '#core/practice/worlds.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/** A small seeded run that guards what `./feather referee` measures on many sheets; the bounds leave room for chance. */
describe('the referee on 60 hidden sheets', () => {
  const scores = new Map<string, Score>();
  beforeAll(() => {
    const dealt = dealSheets(3, 10, PLAIN_WORLD, 77);
    // Those that are asked about below: the prices of harm take as long as all others.
    const asked = CONTENDERS.filter(
      ({ name, isWarm }) => name.includes('staircase') || (isWarm && !name.includes('harm costs')),
    );
    for (const contender of asked) scores.set(contender.name, judge(contender, dealt, 78));
  }, 240_000);
  const of = (name: string) => scores.get(name)!;

  it('sees the staircase about where it was published: 2.3 cuts, mean .85', () => {
    expect(of('up-down staircase').cuts).toBeGreaterThan(1.8);
    expect(of('up-down staircase').cuts).toBeLessThan(3.2);
    expect(of('up-down staircase').mean).toBeGreaterThan(0.75);
    expect(of('up-down staircase').mean).toBeLessThan(0.92);
  });

  it('sees ours, one at a time, right in few cuts', () => {
    const one = of('ours, one at a time, warm');
    expect(one.cuts).toBeLessThan(4.2);
    expect(one.mean).toBeGreaterThan(0.94);
    // .869 on 160 sheets; a share of 60 sheets has a standard error of .045, and two of them are left.
    expect(one.shareGood).toBeGreaterThan(0.78);
    expect(one.harm).toBeLessThan(0.35);
    expect(one.firstHarm).toBeLessThan(0.1);
    expect(one.coverage).toBeGreaterThan(0.82);
    expect(one.coverage).toBeLessThan(0.97);
  });

  it('sees ours by card right in two loads', () => {
    const cards = of('ours, two cards, warm');
    expect(cards.loads).toBe(2);
    expect(cards.mean).toBeGreaterThan(0.93);
    expect(cards.mean).toBeGreaterThan(of('up-down staircase').mean);
  });

  it('sees a prediction without a cut fail often: it is a start, never a setting', () => {
    expect(of('ours, no cut, warm').mean).toBeLessThan(0.8);
  });
});

describe("the referee's world", () => {
  it('repeats itself for a seed, and differs for another', () => {
    const play = (seed: number) => {
      const random = seededRandom(seed);
      return drawSheet(drawMachine(2, random), PLAIN_WORLD, random).edgesGf;
    };
    expect(play(5)).toEqual(play(5));
    expect(play(5)).not.toEqual(play(6));
  });

  it('cuts as often right as it says (2,000 cuts, 3 %), and misreads one grade in ten in the harder world', () => {
    const random = seededRandom(9);
    const sheet = drawSheet(drawMachine(1, random), PLAIN_WORLD, random);
    const wanted = sheet.grades.length === 9 ? ([3, 4] as const) : ([7] as const);
    const edge = sheet.grades.indexOf(wanted[0]) - 1;
    const force = sheet.edgesGf[edge]! * 1.05;
    const honest = { ...PLAIN_WORLD, misjudged: 0 };
    const grades = Array.from({ length: 2000 }, () => seeCut(sheet, force, honest, random));
    const right = grades.filter((grade) => (wanted as readonly number[]).includes(grade)).length / 2000;
    expect(Math.abs(right - trueChance(sheet, wanted, force))).toBeLessThan(0.03);
    const far = sheet.edgesGf[3]! / sheet.edgesGf[2]!;
    const deep = sheet.edgesGf[2]! * Math.sqrt(far);
    const still = { ...sheet, sigma: 1e-6 };
    const misread = Array.from({ length: 2000 }, () =>
      seeCut(still, deep, { ...HARD_WORLD, noiseDf: Infinity }, random),
    );
    const truth = still.grades[3]!;
    expect(misread.filter((grade) => grade !== truth).length / 2000).toBeCloseTo(0.1, 1);
  });
});
