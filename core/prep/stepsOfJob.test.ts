import { expect, it } from 'vitest';
import { stepsOfJob } from '#core/prep/stepsOfJob.ts';
import { usualWaits } from '#core/prep/waitOrder.ts';
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

it('laminates by hand before the film settles, and only once', () => {
  const settles = findWait('laminateSettles', { family: 'printableVinyl', finish: 'gloss' }, {});
  const words = (waits: (typeof wait)[]) =>
    stepsOfJob({ ...job, waits, isLaminated: true }).map(({ id }) => id.replace('4/', ''));
  expect(words([wait, settles])).toEqual([
    'print',
    'wait-1-inkDry',
    'laminate',
    'wait-2-laminateSettles',
    'cut',
    'finish',
  ]);
  expect(words([wait])).toEqual(['print', 'wait-1-inkDry', 'laminate', 'cut', 'finish']);
});

it('cuts a transfer when it is dry; it rests before it is masked, and again once it is pressed (T40, common practice, no source)', () => {
  const film = { family: 'transferFilm' as const, finish: '' };
  const waits = usualWaits({ family: 'transferFilm', condition: 'bare', isPrinted: true }).map((kind) =>
    findWait(kind, film, {}),
  );
  const steps = stepsOfJob({ ...job, waits, pressSeconds: 60 });
  expect(steps.map(({ id }) => id.replace('4/', ''))).toEqual([
    'print',
    'wait-1-inkDry',
    'cut',
    'weed',
    'wait-2-transferRests',
    'mask',
    'press',
    'wait-3-pressRests',
  ]);
  expect(steps.filter(({ place }) => place === 'hands').map(({ minutes }) => minutes)).toEqual([10, 4, 6]);
});
