import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { api, arrive, go, visit } from '#e2e/support/app.ts';
import { drawAs, type Drawer } from '#e2e/support/drawer.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** Jobs as they are kept: listed with pictures, renamed, copied, put away, for another machine, with more drawings. */
let drawer: Drawer;
beforeAll(async () => {
  drawer = await drawAs('Jorun', 1);
});
afterAll(() => drawer.leave());

const disc = (radius: number, colour: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="30mm" viewBox="0 0 30 30"><g id="art"><circle cx="15" cy="15" r="${radius - 2}" fill="${colour}"/></g><g id="kiss"><circle cx="15" cy="15" r="${radius}" fill="none" stroke="#1f766f"/></g></svg>`;
const jobOf = async (id: number) => (await api<JobReply>(`/api/jobs/${id}`)).reply;

describe('a kept job', () => {
  it('is renamed, copied with everything in it, put away and taken back out', async () => {
    const { page } = drawer.visitor;
    const id = await drawer.open('Harbour bell.svg', disc(12, '#7a2b1f'));
    await go(page, '/jobs');
    const picture = page.locator(`img[src^="/api/jobs/${id}/picture"]`);
    await expect
      .poll(() => picture.evaluate((image: HTMLImageElement) => image.naturalWidth))
      .toBeGreaterThan(60);
    await page.getByRole('button', { name: 'Rename Harbour bell' }).click();
    await page.getByLabel('New name').fill('Fog bell');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await page.getByRole('button', { name: 'Copy Fog bell' }).click();
    await arrive(page, /^\/jobs\/\d+$/);
    const copy = await jobOf(Number(/\d+$/.exec(page.url())?.[0]));
    const { roles, layout, sheet } = await jobOf(id);
    expect(copy).toMatchObject({ name: 'Fog bell, copy', roles, layout, sheet });
    await go(page, '/jobs');
    await page.getByRole('button', { name: 'Put Fog bell away' }).click();
    await page.getByText('Fog bell is put away.').waitFor();
    await go(page, '/jobs');
    expect(await page.getByRole('link', { name: /^Fog bell(?!,)/ }).count()).toBe(0);
    await page.getByRole('button', { name: 'Show what was put away' }).click();
    await page
      .getByRole('region', { name: 'Put away' })
      .getByRole('button', { name: 'Take it back out' })
      .click();
    await page.getByRole('link', { name: /^Fog bell(?!,)/ }).waitFor();
    expect(drawer.visitor.errors).toEqual([]);
  });

  it('takes further drawings, each with copies and turns of its own, and lets the first go', async () => {
    const { page } = drawer.visitor;
    const id = await drawer.open('red.svg', disc(14, '#7a2b1f'));
    await drawer.step('Drawing');
    const buffer = Buffer.from(disc(9, '#2b4a7a'));
    await page
      .getByLabel('Add drawings')
      .setInputFiles({ name: 'blue.svg', mimeType: 'image/svg+xml', buffer });
    await page.getByLabel('Copies of blue').fill('3');
    await page.getByLabel('Copies of blue').press('Enter');
    await page.getByRole('button', { name: 'Look at blue' }).click();
    await page.getByLabel('blue may lie').selectOption('half');
    await expect
      .poll(async () => (await jobOf(id)).layout.byDrawing?.[1])
      .toEqual({ copies: 3, turns: 'half' });
    await drawer.step('Sheet');
    await page.getByRole('button', { name: 'Lay out' }).click();
    await page.getByText('4 pieces on one sheet.').waitFor();
    await expect.poll(async () => (await jobOf(id)).layout.placements.length).toBe(4);
    await page.getByRole('button', { name: 'Take red out' }).click();
    await expect.poll(async () => (await jobOf(id)).moreDrawings ?? []).toEqual([]);
    const left = await jobOf(id);
    expect([left.name, left.drawingName]).toEqual(['red', 'blue']);
    expect(left.layout.placements.every(({ piece }) => piece === 0)).toBe(true);
    expect(left.layout.placements.length).toBe(3);
    expect(drawer.visitor.errors).toEqual([]);
  });

  it('is worked on by two at once: who comes second sees what the first made, and nothing is lost', async () => {
    const { page } = drawer.visitor;
    const id = await drawer.open('one.svg', disc(12, '#7a2b1f'));
    await drawer.step('Drawing');
    for (const [name, colour] of [
      ['two', '#2b4a7a'],
      ['three', '#2b7a4a'],
    ] as const) {
      const file = { name: `${name}.svg`, mimeType: 'image/svg+xml', buffer: Buffer.from(disc(9, colour)) };
      await page.getByLabel('Add drawings').setInputFiles(file);
      await page.getByLabel(`Copies of ${name}`).waitFor();
    }
    const other = await visit('Tove', 1);
    await go(other.page, `/jobs/${id}`);
    await other.page.getByRole('tab', { name: /\d Drawing$/ }).click();
    await page.getByLabel('Copies of two').fill('4');
    await page.getByLabel('Copies of two').press('Enter');
    const copies = async () =>
      Object.values((await jobOf(id)).layout.byDrawing ?? {}).map((one) => one?.copies);
    await expect.poll(copies).toEqual(expect.arrayContaining([4]));
    await other.page.getByLabel('Copies of three').fill('6');
    await other.page.getByLabel('Copies of three').press('Enter');
    await other.page
      .getByText(/changed|meanwhile/i)
      .first()
      .waitFor();
    await expect.poll(() => other.page.getByLabel('Copies of two').inputValue()).toBe('4');
    await other.page.getByLabel('Copies of three').fill('6');
    await other.page.getByLabel('Copies of three').press('Enter');
    await expect.poll(copies).toEqual(expect.arrayContaining([4, 6]));
    await other.leave();
    drawer.visitor.errors.splice(0);
  });

  it('is made for another machine and another sheet', async () => {
    const { page } = drawer.visitor;
    const id = await drawer.open('bell.svg', disc(12, '#7a2b1f'));
    await page.getByRole('button', { name: 'Other sheet or machine' }).click();
    await page.getByRole('combobox', { name: /^Machine/ }).selectOption({ label: 'Dunlin desk' });
    await page
      .getByRole('combobox', { name: /^Sheet/ })
      .selectOption({ label: 'Drift label paper, printed' });
    await page.getByRole('button', { name: 'Make it for this' }).click();
    await page.getByText(/Drift label paper, printed on Dunlin desk/).waitFor();
    expect((await jobOf(id)).machineId).toBe(2);
    expect(drawer.visitor.errors).toEqual([]);
  });

  it('has a border that a hand sets by slider, with gaps closed, and stickers that keep theirs apart', async () => {
    const { page } = drawer.visitor;
    const two =
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="30mm" viewBox="0 0 60 30"><circle cx="15" cy="15" r="12" fill="#7a2b1f"/><circle cx="42" cy="15" r="12" fill="#2b4a7a"/></svg>';
    const id = await drawer.open('two.svg', two);
    await drawer.step('Drawing');
    const border = page.getByRole('region', { name: 'Border' });
    await border.getByRole('radio', { name: 'Outside' }).click();
    // 3 mm apart: borders of 1.6 mm meet.
    await border.getByText(/^One piece/).waitFor();
    await border.getByLabel('Wide, mm').fill('1');
    await border.getByLabel('Wide, mm').press('Enter');
    await border.getByText(/^2 pieces/).waitFor();
    await border.getByRole('button', { name: /^One piece: close gaps of/ }).click();
    await border
      .getByText(/^One piece/)
      .first()
      .waitFor();
    await border.getByLabel('Close gaps up to, mm').fill('0');
    await border.getByLabel('Close gaps up to, mm').press('Enter');
    await border.getByLabel('Border, how wide').focus();
    for (let press = 0; press < 10; press++) await page.keyboard.press('ArrowRight');
    await border.getByLabel('Each part is a sticker by itself').check();
    await expect
      .poll(async () => (await jobOf(id)).edits.find((edit) => edit.kind === 'offset' && edit.isOwn))
      .toMatchObject({ byMm: 2, keepsApart: true });
    await drawer.step('Sheet');
    await page.getByRole('button', { name: 'Lay out' }).click();
    await page.getByText('2 pieces on one sheet.').waitFor();
    expect(drawer.visitor.errors).toEqual([]);
  });
});
