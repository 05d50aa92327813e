import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { listSharedEffects } from '#core/knowledge/sharedEffects.ts';
import { seededRandom, drawNormal } from '#core/random/seededRandom.ts';
import { believeLessons, lessonsSchema, takeLessons, withLessons } from '#core/sharing/lessons.ts';
import { believeFromOthers, poolSayings, varianceBetween } from '#core/sharing/poolLessons.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';
import { writeBook } from '#core/tests/writeBook.ts';

/**
 * Trials of BCG vaccine against tuberculosis: ill and well among the vaccinated, ill and well among the others.
 * Source: Colditz and others 1994, Efficacy of BCG vaccine in the prevention of tuberculosis, JAMA 271, 698–702.
 */
const TRIALS = [
  [4, 119, 11, 128],
  [6, 300, 29, 274],
  [3, 228, 11, 209],
  [62, 13536, 248, 12619],
  [33, 5036, 47, 5761],
  [180, 1361, 372, 1079],
  [8, 2537, 10, 619],
  [505, 87886, 499, 87892],
  [29, 7470, 45, 7232],
  [17, 1699, 65, 1600],
  [186, 50448, 141, 27197],
  [5, 2493, 3, 2338],
  [27, 16886, 29, 17825],
] as const;
const riskRatios = TRIALS.map(([a, b, c, d]) => ({
  mean: Math.log(a / (a + b) / (c / (c + d))),
  variance: 1 / a - 1 / (a + b) + 1 / c - 1 / (c + d),
}));

describe('what several say of one thing', () => {
  it('is pooled as DerSimonian and Laird pool it (13 published trials)', () => {
    const between = varianceBetween(riskRatios);
    const { mean, variance } = poolSayings(riskRatios, between);
    // Published of these data by that method: between 0.3088, middle -0.7141, standard error 0.1787.
    expect(between).toBeCloseTo(0.3088, 4);
    expect(mean).toBeCloseTo(-0.7141, 4);
    expect(Math.sqrt(variance)).toBeCloseTo(0.1787, 4);
  });

  it('differs by nothing where all say the same, and is never surer than workshops are alike', () => {
    const common = { mean: 0.1, sd: 0.2 };
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            mean: fc.double({ min: -1, max: 1, noNaN: true }),
            variance: fc.double({ min: 0.0004, max: 0.5, noNaN: true }),
          }),
          { minLength: 1, maxLength: 25 },
        ),
        (sayings) => {
          const { mean, sd } = believeFromOthers(common, sayings);
          const all = [...sayings.map((one) => one.mean), common.mean];
          expect(sd).toBeLessThanOrEqual(common.sd + 1e-12);
          expect(sd).toBeGreaterThan(0);
          expect(mean).toBeGreaterThanOrEqual(Math.min(...all) - 1e-9);
          expect(mean).toBeLessThanOrEqual(Math.max(...all) + 1e-9);
        },
      ),
      { seed: 31, numRuns: 400 },
    );
    expect(varianceBetween([{ mean: 0.3, variance: 0.1 }])).toBe(0);
    expect(believeFromOthers(common, [])).toBe(common);
  });

  it.each([
    ['alike', 0.03, 0.9],
    ['half alike', 0.14, 0.88],
    // How much they differ is told by twenty alone: when they seem more alike than they are, some of it is missed.
    ['not alike at all', 0.2, 0.86],
  ])('covers what is true of one more workshop 90 times in 100, where they are %s', (_, between, least) => {
    const random = seededRandom(90);
    const common = { mean: 0, sd: 0.2 };
    const middleSd = Math.sqrt(common.sd ** 2 - between ** 2);
    let covered = 0;
    const rounds = 4000;
    for (let round = 0; round < rounds; round++) {
      const middle = middleSd * drawNormal(random);
      const sayings = Array.from({ length: 20 }, () => {
        const sd = 0.05 + 0.1 * random();
        return { mean: middle + between * drawNormal(random) + sd * drawNormal(random), variance: sd ** 2 };
      });
      const own = middle + between * drawNormal(random);
      const { mean, sd } = believeFromOthers(common, sayings);
      if (Math.abs(own - mean) <= 1.6449 * sd) covered += 1;
    }
    expect(covered / rounds).toBeGreaterThan(least);
  });
});

describe('lessons of a book', () => {
  const truth = { machines: [0.12, -0.1, 0], families: { printableVinyl: 0.2, cardstock: -0.25 } };
  const book = writeBook(60, truth, seededRandom(5));
  const kinds = new Map(book.map(({ machineId }) => [machineId, 'rollFed' as const]));
  const fitted = fitKnowledge(book);
  const lessons = takeLessons(fitted, COMMON_PRIORS, kinds);

  it('hold effects with their spreads, machines by their kind, and nobody’s names', () => {
    expect(lessonsSchema.parse(lessons)).toEqual(lessons);
    expect(lessons.effects.length).toBeGreaterThan(3);
    const names = lessons.effects.map(({ name }) => name);
    expect(names.filter((name) => /^(machine|levels|bend):/.test(name))).toEqual([]);
    expect(JSON.stringify(lessons)).not.toMatch(/material|lot|author|Ines/);
  });

  it('are what the cuts say alone: told to a workshop that believes as usual, they lead near where the giver is', () => {
    const moved = believeLessons([lessons], [], COMMON_PRIORS);
    for (const { name, mean, sd, commonMean, commonSd } of moved) {
      const place = fitted.names.indexOf(name);
      const giver = (fitted.mean[place] as number) + (fitted.shift?.[name] ?? 0);
      // Towards the giver, never past what its own cuts say, and less sure than the giver is.
      if (Math.abs(giver - commonMean) > 0.02) {
        expect(Math.sign(mean - commonMean), name).toBe(Math.sign(giver - commonMean));
      }
      expect(sd, name).toBeLessThan(commonSd);
    }
  });

  it('given on, do not count what was told by others', () => {
    const told = withLessons(COMMON_PRIORS, believeLessons([lessons], [], COMMON_PRIORS));
    const again = takeLessons(fitKnowledge(book, { priors: told }), told, kinds);
    for (const { name, mean, sd } of lessons.effects) {
      const second = again.effects.find((one) => one.name === name);
      // Believing more beforehand, the same cuts say about the same.
      if (second && sd < 0.15) expect(Math.abs(second.mean - mean), name).toBeLessThan(2 * sd);
    }
  });

  it('stand behind what the workshop set itself', () => {
    const moved = believeLessons([lessons], [], COMMON_PRIORS);
    const names = Object.keys(withLessons(COMMON_PRIORS, moved).told ?? {});
    const family = names.find((name) => name.startsWith('family:')) ?? '';
    expect(family).not.toBe('');
    const own = withLessons(COMMON_PRIORS, moved, new Set(['layeredOffset']));
    expect(Object.keys(own.told ?? {}).filter((name) => name.startsWith('family:'))).toEqual([]);
    const { habits } = COMMON_PRIORS;
    const one = family.slice('family:'.length) as keyof typeof habits;
    const usual = { ...habits, [one]: { ...habits[one], usualGf: 2 * habits[one].usualGf } };
    expect(withLessons({ ...COMMON_PRIORS, habits: usual }, moved).told?.[family]).toBeUndefined();
  });

  it('of another model are passed over', () => {
    expect(believeLessons([{ ...lessons, model: 'another' }], [])).toEqual([]);
  });

  it('of machines of a kind are believed of each machine of that kind', () => {
    const told = { ...lessons, effects: [{ name: 'kind:rollFed', mean: 0.1, sd: 0.03 }] };
    const moved = believeLessons(
      [told, told, told],
      [
        { id: 7, kind: 'rollFed' },
        { id: 8, kind: 'flatbed' },
      ],
    );
    expect(moved.map(({ name }) => name)).toEqual(['machine:7']);
    const { mean, sd, places } = listSharedEffects([7, 8], withLessons(COMMON_PRIORS, moved));
    expect(mean[places.get('machine:7') ?? -1]).toBeGreaterThan(0.04);
    expect(sd[places.get('machine:8') ?? -1]).toBe(0.12);
  });
});
