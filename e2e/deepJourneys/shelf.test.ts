import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { api, go, settle, visit, type Visitor } from '#e2e/support/app.ts';

let ines: Visitor;
let tove: Visitor;
beforeAll(async () => {
  [ines, tove] = await Promise.all([visit('Ines', 2), visit('Tove', 2)]);
});
afterAll(() => Promise.all([ines.leave(), tove.leave()]));

async function findMaterial(name: string): Promise<Material> {
  const { reply } = await api<Material[]>('/api/materials');
  const found = reply.find((material) => material.name === name);
  if (!found) throw new Error(`there is no material ${name}`);
  return found;
}

describe('the page of a material', () => {
  it('takes a weight as people say it, draws it as it is typed, and keeps it', async () => {
    const { page } = ines;
    const { id } = await findMaterial('Harbourmaster cover');
    await go(page, `/materials/${id}`);
    const caliper = page.getByLabel('Layer 1 caliper');
    await caliper.fill('heavy');
    await page.getByText(/a thickness: 80, 3.2 mil, 80 lb cover/).waitFor();
    await caliper.fill('65 lb cover');
    await page.getByText(/65 lb cover, 176 g\/m²: about 231 µm/).waitFor();
    await page.getByRole('img', { name: /body 231 µm/ }).waitFor();
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await page.getByText('Kept.').waitFor();
    const kept = await findMaterial('Harbourmaster cover');
    expect(kept.conditions[0]?.stack[0]).toMatchObject({
      caliperUm: expect.closeTo(231.5, 0),
      isMeasured: false,
    });
  });

  it('takes the change back', async () => {
    const { page } = ines;
    const readAnew = page.waitForEvent('load');
    await page.getByRole('button', { name: 'Undo' }).click();
    await readAnew;
    await expect
      .poll(async () => (await findMaterial('Harbourmaster cover')).conditions[0]?.stack[0]?.caliperUm)
      .toBe(285);
  });

  it('adds a state, a lot and a colour with what they want, by keyboard, and finds the lot', async () => {
    const { page } = ines;
    const { id } = await findMaterial('Capstan vinyl');
    await go(page, `/materials/${id}`);
    await page.getByRole('button', { name: 'printed' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('img', { name: /ink 5 µm, face 75 µm/ }).waitFor();
    await page.getByRole('button', { name: 'Add a lot' }).focus();
    await page.keyboard.press('Enter');
    const shelf = page.getByRole('region', { name: 'On the shelf' });
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await shelf.getByText('is missing').waitFor();
    await shelf.getByLabel('Code').fill('C-99');
    await shelf.getByLabel('Force, % more').first().fill('4');
    await page.getByLabel('Also called, one a line').fill('buoy film\nthe orange one');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await page.getByText('Kept.').waitFor();
    const { reply } = await api<{ hits: { name: string }[] }>('/api/lookup?text=c99');
    expect(reply.hits[0]?.name).toBe('Capstan vinyl');
    const kept = await findMaterial('Capstan vinyl');
    expect(kept.conditions.map(({ kind }) => kind)).toEqual(['bare', 'printed']);
    expect(kept.details).toMatchObject({
      nicknames: ['buoy film', 'the orange one'],
      lots: [{ forcePercent: 4 }],
    });
  });

  it('refuses the second of two who change it at once, and keeps what they typed', async () => {
    const { id } = await findMaterial('Lantern stencil sheet');
    await Promise.all([go(ines.page, `/materials/${id}`), go(tove.page, `/materials/${id}`)]);
    await ines.page.getByLabel('Finish').fill('frosted twice');
    await ines.page.getByRole('button', { name: 'Keep the changes' }).click();
    await ines.page.getByText('Kept.').waitFor();
    await tove.page.getByLabel('Finish').fill('cloudy');
    await tove.page.getByRole('button', { name: 'Keep the changes' }).click();
    await tove.page.getByText(/Somebody else changed Lantern stencil sheet while you worked/).waitFor();
    expect(await tove.page.getByLabel('Finish').inputValue()).toBe('cloudy');
    expect((await findMaterial('Lantern stencil sheet')).finish).toBe('frosted twice');
  });

  it('is put away and taken back out', async () => {
    const { page } = ines;
    const { id } = await findMaterial('Quilt transfer film, cream');
    await go(page, `/materials/${id}`);
    await page.getByRole('button', { name: 'Put this material away' }).click();
    await page.getByText('Put away: the search leaves it out.').waitFor();
    await page.getByRole('button', { name: 'Take back out' }).click();
    await page.getByRole('button', { name: 'Put this material away' }).waitFor();
    expect(ines.errors).toEqual([]);
  });
});

describe('the page of a machine', () => {
  it('measures its scale with a balance, refuses what no machine reads, and keeps the curve', async () => {
    const { page } = tove;
    const body = await deskCopy('Turnstone desk');
    const { reply } = await api<{ id: number }>('/api/machines', 'POST', body);
    await go(page, `/machines/${reply.id}`);
    await page.getByText('Not measured yet: grams').waitFor();
    // The page reads itself anew: what is typed before its islands answer would be lost.
    await settle(page);
    const grams = (row: number) => page.getByLabel(`Reading ${row}: grams`);
    const set = (row: number) => page.getByLabel(`Reading ${row}: set to`);
    for (const [row, level, read] of [
      [1, 4, 60],
      [2, 12, 150],
      [3, 20, 90],
      [4, 28, 330],
    ] as const) {
      await set(row).fill(String(level));
      await grams(row).fill(String(read));
    }
    await page.getByText(/20 read 90 g, less than 12 with 150 g: read both again/).waitFor();
    expect(await page.getByRole('button', { name: 'Keep this scale' }).isDisabled()).toBe(true);
    await grams(3).fill('240');
    await page.getByText(/Readings scatter by/).waitFor();
    await page.getByRole('button', { name: 'Keep this scale' }).click();
    await page.getByText(/In force: measured by Tove/).waitFor();
    const { reply: machines } = await api<Machine[]>('/api/machines');
    expect(machines.find(({ id }) => id === reply.id)?.forceScale.measured?.length).toBeGreaterThan(10);
    await page.getByRole('button', { name: 'Take the kept one back' }).click();
    await page.getByText('Not measured yet: grams').waitFor();
    // The page reads itself anew: what is typed before its islands answer would be lost.
    await settle(page);
  });

  it('is changed, says what was changed, and is changed back', async () => {
    const { page } = tove;
    await page.getByLabel('Rim it cannot reach, mm').fill('11');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await page.getByText('Turnstone desk changed').waitFor();
    await expect.poll(() => page.getByLabel('Rim it cannot reach, mm').inputValue()).toBe('11');
    await page.getByRole('button', { name: 'Undo the last' }).click();
    await expect.poll(() => page.getByLabel('Rim it cannot reach, mm').inputValue()).toBe('6');
    await page.getByRole('button', { name: 'Put this machine away' }).click();
    await page.getByRole('button', { name: 'Take back out' }).waitFor();
    const { reply: machines } = await api<Machine[]>('/api/machines');
    expect(machines.map(({ name }) => name)).not.toContain('Turnstone desk');
    expect(tove.errors).toEqual([]);
  });
});

describe('blades and mats', () => {
  it('are added, cleaned and retired, and a retired one leaves the rail', async () => {
    const { page } = ines;
    await go(page, '/upkeep');
    const blades = page.getByRole('region', { name: 'Blades' });
    await blades.getByText('Add a blade').click();
    await page.getByRole('form', { name: 'New blade' }).getByLabel('Number').fill('9');
    await page.getByRole('button', { name: 'Keep this blade' }).click();
    await blades.getByText('blade number 9 exists already').waitFor();
    await page.getByRole('form', { name: 'New blade' }).getByLabel('Number').fill('41');
    await page.getByRole('button', { name: 'Keep this blade' }).click();
    const row = blades.getByRole('listitem').filter({ hasText: 'No. 41' });
    await row.getByRole('button', { name: 'Cleaned' }).click();
    await row.getByText(/1 entry/).waitFor();
    await row.getByRole('button', { name: 'Retire' }).click();
    await blades.getByText('1 retired', { exact: true }).waitFor();
    await page
      .getByRole('complementary', { name: 'Station' })
      .getByRole('button', { name: /^Blade/ })
      .click();
    await page.getByRole('menuitem', { name: /No\. 9/ }).waitFor();
    expect(await page.getByRole('menuitem', { name: /No\. 41/ }).count()).toBe(0);
    await page.keyboard.press('Escape');
    const mats = page.getByRole('region', { name: 'Mats' });
    const mat = mats.getByRole('listitem').filter({ hasText: 'No. 4, light' }).first();
    await mat.getByText('8 since washed').waitFor();
    await mat.getByRole('button', { name: 'Washed' }).click();
    await mat.getByText('0 since washed').waitFor();
    expect(ines.errors).toEqual([]);
  });
});

async function deskCopy(name: string): Promise<object> {
  const { reply } = await api<Machine[]>('/api/machines');
  const { id, version, isArchived, forceScale, ...desk } = reply.find(
    (machine) => machine.name === 'Dunlin desk',
  )!;
  const { measured, ...scale } = forceScale;
  return { ...desk, forceScale: scale, name, link: { kind: 'none' } };
}
