import { describe, expect, it } from 'vitest';
import { fillSequence, layOutDay, type DayJob, type DayOrder } from '#core/prep/dayPlan.ts';
import { planDay } from '#core/prep/planDay.ts';
import { findWaits, usualWaits } from '#core/prep/waitOrder.ts';
import { findWait, minutesLeft } from '#core/prep/waits.ts';
import { seededRandom } from '#core/random/seededRandom.ts';

/**
 * FT06 of Fisher and Thompson 1963, "Probabilistic learning combinations of local job-shop scheduling rules": six jobs
 * on six machines, pairs of machine and minutes. Best makespan 55 (from memory).
 */
const FT06 = [
  [2, 1, 0, 3, 1, 6, 3, 7, 5, 3, 4, 6],
  [1, 8, 2, 5, 4, 10, 5, 10, 0, 10, 3, 4],
  [2, 5, 3, 4, 5, 8, 0, 9, 1, 1, 4, 7],
  [1, 5, 0, 5, 2, 5, 3, 3, 4, 8, 5, 9],
  [2, 9, 1, 3, 4, 5, 5, 4, 0, 3, 3, 1],
  [1, 3, 3, 3, 5, 9, 0, 10, 4, 4, 2, 1],
];

const step = (place: string | null, minutes: number, setUp = '', id = `${place}-${minutes}`) => ({
  id,
  words: id,
  place,
  minutes,
  setUp,
  notBefore: 0,
  done: null,
});
const job = (id: string, ...steps: DayJob['steps']): DayJob => ({ id, words: id, steps });
const dayOf = (jobs: readonly DayJob[], change: Partial<DayOrder> = {}): DayOrder => ({
  jobs,
  changeMinutes: 10,
  now: 0,
  setUps: {},
  ...change,
});

/** Every order of the open steps, each job's own order kept. */
function* allSequences(left: readonly number[]): Generator<readonly number[]> {
  if (left.every((count) => count === 0)) yield [];
  for (const [index, count] of left.entries()) {
    if (count === 0) continue;
    const rest = left.map((one, place) => (place === index ? one - 1 : one));
    for (const tail of allSequences(rest)) yield [index, ...tail];
  }
}

describe('planDay', () => {
  it('finds the best known end of FT06, 55', () => {
    const jobs = FT06.map((pairs, index) =>
      job(
        `job ${index}`,
        ...Array.from({ length: 6 }, (_, at) => step(`machine ${pairs[2 * at]}`, pairs[2 * at + 1]!)),
      ),
    );
    const plan = planDay(dayOf(jobs), seededRandom(1), 60_000);
    expect(plan.endsAt).toBe(55);
  });

  it('ends as early as the best of all orders of small days, changes and waits included', () => {
    for (let seed = 1; seed <= 8; seed++) {
      const random = seededRandom(seed);
      const minutes = () => 5 + Math.floor(40 * random());
      const jobs = ['a', 'b', 'c'].map((name, index) =>
        job(
          name,
          step('printer', minutes()),
          step(null, minutes()),
          step(index % 2 === 0 ? 'roll' : 'desk', minutes(), ['film', 'card'][Math.floor(2 * random())]),
        ),
      );
      const order = dayOf(jobs);
      let best = Infinity;
      for (const sequence of allSequences([3, 3, 3])) {
        const { endsAt, changes } = layOutDay(order, sequence);
        best = Math.min(best, endsAt + 2 * changes);
      }
      const plan = planDay(order, seededRandom(99), 6000);
      // The third part of the cost, early jobs, weighs less than a tenth of a minute here.
      expect(plan.endsAt + 2 * plan.changes).toBeCloseTo(best, 6);
    }
  });

  it('puts like sheets one after the other, and fills waits with other jobs', () => {
    const film = (id: string) => job(id, step('roll', 10, 'film'));
    const card = (id: string) => job(id, step('roll', 10, 'card'));
    const plan = planDay(dayOf([film('1'), card('2'), film('3'), card('4')]), seededRandom(2));
    expect(plan.changes).toBe(2);
    const filled = planDay(
      dayOf([
        job('printed', step('printer', 10), step(null, 60), step('roll', 10)),
        job('plain', step('roll', 50)),
      ]),
      seededRandom(3),
    );
    expect(filled.endsAt).toBe(80);
  });

  it('leaves what is done where it was, begins nothing before now, and keeps what was dragged', () => {
    const done = { ...step('roll', 10), done: { from: 5, to: 31 } };
    const order = dayOf(
      [job('late', done, step('roll', 20)), job('dragged', { ...step('roll', 5), notBefore: 90 })],
      {
        now: 40,
      },
    );
    const plan = planDay(order, seededRandom(4));
    const at = (jobIndex: number, stepIndex: number) =>
      plan.steps.find((one) => one.jobIndex === jobIndex && one.stepIndex === stepIndex)!;
    expect(at(0, 0)).toMatchObject({ from: 5, to: 31 });
    expect(at(0, 1).from).toBe(40);
    expect(at(1, 0).from).toBe(90);
  });

  it('never has two steps at one place at once, nor a job ahead of itself', () => {
    const random = seededRandom(8);
    const jobs = Array.from({ length: 7 }, (_, index) =>
      job(
        `${index}`,
        ...Array.from({ length: 4 }, () =>
          step(random() < 0.25 ? null : `m${Math.floor(3 * random())}`, 3 + Math.floor(20 * random()), 'x'),
        ),
      ),
    );
    const { steps } = planDay(dayOf(jobs), seededRandom(6), 2000);
    expect(steps).toHaveLength(28);
    for (const a of steps) {
      for (const b of steps) {
        if (a === b) continue;
        const [placeA, placeB] = [a, b].map((one) => jobs[one.jobIndex]!.steps[one.stepIndex]!.place);
        if (placeA !== null && placeA === placeB) expect(a.to <= b.from || b.to <= a.from).toBe(true);
        if (a.jobIndex === b.jobIndex && a.stepIndex < b.stepIndex) expect(a.to).toBeLessThanOrEqual(b.from);
      }
    }
  });

  it('gives every open step its turn at once, what was added last', () => {
    const jobs = [
      job('a', step('x', 5), step('y', 5)),
      job('b', { ...step('x', 5), done: { from: 0, to: 5 } }, step('x', 5)),
    ];
    expect(fillSequence(jobs, [1, 0])).toEqual([1, 0, 0]);
    expect(layOutDay(dayOf(jobs), fillSequence(jobs, [])).steps).toHaveLength(4);
    expect(fillSequence(jobs, [0, 0, 1, 1])).toEqual([0, 0, 1, 1]);
  });

  it('is an empty day without jobs', () => {
    expect(planDay(dayOf([]), seededRandom(1))).toMatchObject({ steps: [], endsAt: 0, changes: 0 });
  });
});

describe('waits', () => {
  it('are the usual ones until the maker says another; clear film is slowest', () => {
    expect(findWait('inkDry', { family: 'stickerPaper', finish: 'matt' }, {})).toMatchObject({
      minutes: 10,
      source: 'usual',
    });
    const clear = findWait('inkDry', { family: 'printableVinyl', finish: 'clear' }, {}).minutes;
    expect(clear).toBeGreaterThan(
      findWait('inkDry', { family: 'printableVinyl', finish: 'gloss' }, {}).minutes,
    );
    expect(findWait('inkDry', { family: 'printableVinyl', finish: 'clear' }, { inkDry: 20 })).toMatchObject({
      minutes: 20,
      source: 'maker',
    });
    // A day before the next step, hours before cutting: common practice, no source.
    expect(findWait('transferRests', { family: 'transferFilm', finish: '' }, {}).minutes).toBe(1440);
  });

  it('follow the state: ink, coats and curing of a sealer, laminate; a workshop’s own route comes first', () => {
    const vinyl = { family: 'printableVinyl', isPrinted: true } as const;
    expect(usualWaits({ ...vinyl, condition: 'sealed' })).toEqual(['inkDry', 'sealerCoat', 'sealerCures']);
    expect(usualWaits({ ...vinyl, condition: 'laminated' })).toEqual(['inkDry', 'laminateSettles']);
    expect(usualWaits({ ...vinyl, condition: 'bare', isPrinted: false })).toEqual([]);
    expect(usualWaits({ family: 'transferFilm', condition: 'printed', isPrinted: true })).toContain(
      'transferRests',
    );
    const own = ['inkDry', 'sealerCoat', 'sealerCoat'] as const;
    expect(findWaits({ ...vinyl, condition: 'sealed' }, own)).toEqual(own);
    expect(findWaits({ ...vinyl, condition: 'sealed', isPrinted: false }, own)).toEqual([
      'sealerCoat',
      'sealerCoat',
    ]);
  });

  it('count down to 0 and stay there', () => {
    const now = new Date('2026-03-01T10:00:00Z');
    expect(minutesLeft('2026-03-01T10:20:30Z', now)).toBe(21);
    expect(minutesLeft('2026-03-01T09:00:00Z', now)).toBe(0);
  });
});
