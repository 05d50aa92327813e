import { describe, expect, it } from 'vitest';
import type { DialIn } from '#core/dialIn/dialIn.ts';
import { composeAnswer } from '#core/answer/composeAnswer.ts';
import { describeCut, type GivenCut } from '#web/endpoints/dialIn/describeCut.ts';
import { drawTestCard, reserveCard } from '#web/endpoints/dialIn/drawTestCard.ts';
import { listMoved } from '#web/endpoints/dialIn/listMoved.ts';
import { sampleStation } from '#web/tests/sampleBook.ts';

const station = sampleStation({ lot: '26-B' });
const given: GivenCut = {
  operation: 'kiss',
  force: 95,
  passes: 1,
  speed: 200,
  exposureMm: 0.375,
  grade: 3,
  flaws: [],
  author: 'Ines',
};
const dialIn: DialIn = {
  id: 4,
  machineId: 2,
  conditionId: 10,
  lot: '26-B',
  colour: '',
  operation: 'kiss',
  passes: 2,
  speed: 200,
  exposureMm: 0.375,
  state: 'open',
  loadCount: 0,
  card: null,
  scrap: { widthMm: 150, heightMm: 100, piece: 'square', taken: [] },
  author: 'Ines',
  openedAt: '',
  changedAt: '',
  version: 1,
};
const answer = composeAnswer(station, 'kiss', null, [])!;

describe('a graded cut', () => {
  it('takes lot, blade and grams from the station', () => {
    expect(describeCut(station, given)).toMatchObject({
      lot: '26-B',
      bladeId: 3,
      bladeMetres: 205,
      forceGf: 95,
      speedMmPerS: 200,
    });
  });

  it.each([
    ['no sheet', { ...station, loaded: null }, given, /no sheet is loaded/],
    ['a range that ends before it begins', station, { ...given, upTo: 2 as const }, /no range of this sheet/],
    ['a force off the scale', station, { ...given, force: 900 }, /900/],
    ['an exposure the holder has not', station, { ...given, exposureMm: 9 }, /9/],
  ] as const)('is refused with %s, saying why', (_, at, cut, reason) => {
    expect(() => describeCut(at, cut)).toThrow(reason);
  });
});

describe('a card on the scrap', () => {
  it('takes its own room, load after load, until there is none', () => {
    let now = dialIn;
    for (let load = 0; load < 40; load++) {
      try {
        now = { ...now, scrap: reserveCard(now, station, 6) };
      } catch (error) {
        expect(String(error)).toMatch(/no room left for a card of 80 × 14 mm/);
        expect(now.scrap.taken.length).toBeGreaterThanOrEqual(4);
        return;
      }
    }
    throw new Error('a scrap of 150 × 100 mm cannot take forty cards');
  });

  it('is drawn by force, by speed or by passes, and where it was laid once it waits', () => {
    const speeds = drawTestCard(dialIn, station, answer, { vary: 'speed', card: 'next' });
    expect(speeds.card.cells.map(({ speed }) => speed)).toEqual([200, 140, 100, 70]);
    const passes = drawTestCard(dialIn, station, answer, { vary: 'passes', card: 'next' });
    expect(passes.card.cells.map(({ passes: count }) => count)).toEqual([1, 2, 3, 4]);
    const ladder = drawTestCard(dialIn, station, answer, { vary: 'force', card: 'ladder' });
    expect(ladder.card.cells.map(({ force }) => force)).toEqual(answer.ladder);
    const scrap = reserveCard(dialIn, station, 3);
    const card = { load: 1, purpose: 'confirm', forces: [80, 90, 100] } as const;
    const waiting = drawTestCard({ ...dialIn, scrap, card }, station, answer, {
      vary: 'force',
      card: 'waiting',
    });
    expect(waiting.card.box).toEqual(scrap.taken[0]);
    expect(() => drawTestCard(dialIn, station, answer, { vary: 'force', card: 'waiting' })).toThrow(
      /no card waits/,
    );
  });
});

describe('what moved', () => {
  it('is named in percent of force, the most first, trifles and newcomers left out', () => {
    const before = new Map([
      ['film', 4],
      ['card', 5],
      ['paper', 3],
    ]);
    const after = new Map([
      ['film', 4.05],
      ['card', 4.9],
      ['paper', 3.001],
      ['new', 1],
    ]);
    const moved = listMoved(before, after);
    expect(moved.map(({ name }) => name)).toEqual(['card', 'film']);
    expect(moved[0]!.percent).toBeCloseTo(100 * (Math.exp(-0.1) - 1), 9);
  });
});
