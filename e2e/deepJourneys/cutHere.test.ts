import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import { PHONE_SIZE, setUp, visit, type Visitor } from '#e2e/support/app.ts';
import { findCut } from '#e2e/support/findHere.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';

/**
 * A sheet nobody knows, found from the screen alone at a phone: no file, no keyboard, by what is seen of each piece. Its
 * through cut and its tabs are found at every stand-in in `e2e/deepJourneys/findOnEach.test.ts`.
 */
const NAME = 'Tern 340';
let tove: Visitor;
let machineId = 0;

beforeAll(async () => {
  const link = { kind: 'standIn', model: 'roll' };
  machineId = (await setUp<{ id: number }>('/api/machines', 'POST', { ...rollCutter(NAME), link })).id;
  const material = {
    name: 'Tern matt film',
    maker: 'unknown',
    family: 'printableVinyl',
    finish: 'matt',
    colourName: 'pale',
    colourHex: '#e4e2dc',
    darkness: 0,
    stack: [
      { role: 'face', caliperUm: 85, isMeasured: false },
      { role: 'adhesive', caliperUm: 25, isMeasured: false },
      { role: 'liner', caliperUm: 130, isMeasured: false },
    ],
  };
  const { conditionId } = await setUp<{ conditionId: number }>('/api/materials', 'POST', material);
  await setUp(`/api/stations/${machineId}`, 'PATCH', { conditionId });
  tove = await visit('Tove', machineId, PHONE_SIZE);
});
afterAll(() => tove.leave());

afterEach(async () => {
  const { page, errors } = tove;
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
    PHONE_SIZE.width,
  );
  expect(errors).toEqual([]);
});

it('its kiss is cut on the machine, looked at, graded with a tap and kept', () =>
  findCut(tove, NAME, 'kiss'));
