import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { api, arrive, BENCH_SIZE, go, PHONE_SIZE, visit, type Visitor } from '#e2e/support/app.ts';
import { findCut, findTabs } from '#e2e/support/findHere.ts';

/**
 * A stranger with a sheet that nobody knows, at each stand-in of the demo: described by what is seen, then kiss,
 * through and tabs found from the screen alone. At the desk once, standing with a phone once.
 */
const STRANGERS = [
  ['Gannet 600', 'plain adhesive vinyl', PHONE_SIZE],
  ['Dunlin desk', 'sticker and label paper', BENCH_SIZE],
  ['Plover flatbed', 'printable vinyl', PHONE_SIZE],
] as const;

describe.each(STRANGERS)('at the %s, with some %s', (name, family, size) => {
  let visitor: Visitor;
  beforeAll(async () => {
    const { reply } = await api<{ id: number; name: string }[]>('/api/machines');
    visitor = await visit('Ines', reply.find((machine) => machine.name === name)?.id, size);
  });
  afterAll(async () => {
    expect(visitor.errors).toEqual([]);
    await visitor.leave();
  });

  it('the sheet is named by what is seen and loaded', async () => {
    const { page } = visitor;
    await go(page, '/test-cuts/unknown');
    await page.getByRole('button', { name: family, exact: true }).click();
    await page.getByRole('button', { name: 'Load it and find its setting' }).click();
    await arrive(page, /^\/test-cuts$/);
  });

  it('its kiss is found', () => findCut(visitor, name, 'kiss'));
  it('its through cut is found', () => findCut(visitor, name, 'through'));
  it('its tabs are found', () => findTabs(visitor, name));
});
