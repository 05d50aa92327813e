import { expect, it } from 'vitest';
import { stepsOfJob } from '#core/prep/stepsOfJob.ts';
import { findWait } from '#core/prep/waits.ts';

const wait = findWait('inkDry', { family: 'stickerPaper', finish: 'matt' }, {});
const job = {
  id: 4,
  sheets: 2,
  isPrinted: true,
  machineName: 'Plover',
  setUp: 'paper, 45°',
  cutSeconds: 120,
  waits: [wait],
};

it('prints, waits, cuts at its machine and finishes by hand; a wait needs no place', () => {
  const steps = stepsOfJob(job);
  expect(steps.map(({ place }) => place)).toEqual(['printer', null, 'Plover', 'hands']);
  expect(steps.map(({ minutes }) => minutes)).toEqual([6, 10, 10, 10]);
  expect(steps[2]).toMatchObject({ words: 'cut 2 sheets', setUp: 'paper, 45°', done: null, notBefore: 0 });
  expect(new Set(steps.map(({ id }) => id)).size).toBe(4);
});

it('begins with the cut where nothing is printed, and takes at least a minute', () => {
  const [first] = stepsOfJob({ ...job, isPrinted: false, waits: [], sheets: 1, cutSeconds: 1 });
  expect(first).toMatchObject({ place: 'Plover', words: 'cut 1 sheet', minutes: 3 });
});
