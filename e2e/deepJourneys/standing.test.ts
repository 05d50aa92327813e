import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { api, go, PHONE_SIZE, settle, visit, type Visitor } from '#e2e/support/app.ts';
import type { BookPage } from '#web/schemas/setting.ts';

let ines: Visitor;
let phone: Visitor;
beforeAll(async () => {
  [ines, phone] = await Promise.all([visit('Ines', 2), visit('Tove', 2, PHONE_SIZE)]);
});
afterAll(() => Promise.all([ines.leave(), phone.leave()]));

const idOf = async (text: string) =>
  (await api<BookPage>(`/api/settings?text=${text}`)).reply.settings[0]!.id;

describe('standing at the machine with a phone', () => {
  it('finds, loads and reads the answer with a thumb', async () => {
    const { page } = phone;
    await go(page, '/');
    await page.getByLabel('Find a material to load').click();
    await page.getByLabel('Find a material to load').fill('drift print');
    const option = page.getByRole('option', { name: /Drift label paper, printed/ });
    await option.waitFor();
    expect(await option.textContent()).toMatch(/kiss \d+/);
    await option.click();
    await page.getByRole('heading', { name: 'Drift label paper, printed' }).waitFor();
    expect(phone.errors).toEqual([]);
  });

  it('has targets of 44 px wherever a thumb has to hit (Bench, test cuts, a setting)', async () => {
    const { page } = phone;
    for (const path of ['/', '/test-cuts', `/settings/${await idOf('drift')}`]) {
      await go(page, path);
      const small = await page.evaluate(() =>
        [
          ...document.querySelectorAll(
            'main button, main .button, main select, main input:not([type=checkbox])',
          ),
        ]
          .filter(
            (one) => one instanceof HTMLElement && one.offsetParent !== null && !one.closest('.sr-only'),
          )
          .map((one) => ({
            words: one.textContent?.trim().slice(0, 30),
            height: one.getBoundingClientRect().height,
          }))
          .filter(({ height }) => height < 43.5),
      );
      expect(small, path).toEqual([]);
    }
  });

  it('keeps the rail in reach: what is loaded can be changed from any view', async () => {
    const { page } = phone;
    for (const path of ['/settings', '/upkeep', '/log']) {
      await go(page, path);
      const rail = page.getByRole('complementary', { name: 'Station' });
      const box = (await rail.boundingBox())!;
      expect(box.y + box.height).toBeLessThanOrEqual(PHONE_SIZE.height + 1);
    }
  });
});

describe('in inches', () => {
  it('shows every view in mil and inches, and takes what is typed in them', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.getByRole('button', { name: /mm: switch units/ }).click();
    await page.getByText(/mil/).first().waitFor();
    await settle(page);
    const { reply: materials } = await api<{ id: number; name: string }[]>('/api/materials');
    const capstan = materials.find(({ name }) => name.startsWith('Saltbox'))!;
    await go(page, `/materials/${capstan.id}`);
    const caliper = page.getByLabel('Layer 2 caliper');
    expect(await caliper.inputValue()).toBe('3.6');
    await caliper.fill('4');
    await page.getByRole('img', { name: /face 4\.0 mil/ }).waitFor();
    await page.getByRole('button', { name: /in: switch units/ }).click();
    await settle(page);
    expect(ines.errors).toEqual([]);
  });
});

describe('when the server does not answer', () => {
  it('keeps what was typed on the page of a setting, says so, and keeps it when the server is back', async () => {
    const { page } = ines;
    await go(page, `/settings/${await idOf('saltbox')}`);
    const force = page.getByRole('form', { name: 'Values' }).getByLabel('force', { exact: true });
    await force.fill('7');
    await page.getByLabel('Why, in a few words').fill('typed in the dark');
    await ines.context.setOffline(true);
    await page.getByRole('button', { name: /^Keep revision/ }).click();
    await page.getByText('The server does not answer.').waitFor();
    expect(await force.inputValue()).toBe('7');
    await ines.context.setOffline(false);
    await page.getByRole('button', { name: /^Keep revision/ }).click();
    await page.getByText('typed in the dark').waitFor();
  });

  it('says so in the search, and finds again when it is back', async () => {
    const { page } = ines;
    await go(page, '/');
    await ines.context.setOffline(true);
    await page.keyboard.press('/');
    await page.keyboard.type('drift');
    await page.getByText('The server does not answer.').waitFor();
    await ines.context.setOffline(false);
    await page.keyboard.type(' label');
    await page
      .getByRole('option', { name: /Drift label paper/ })
      .first()
      .waitFor();
    expect(ines.errors).toEqual([]);
  });
});

describe('by keyboard alone', () => {
  it('a setting is opened from the book, changed and kept without a pointer', async () => {
    const { page } = ines;
    await go(page, '/settings');
    await page.getByRole('search', { name: 'Narrow the list' }).getByRole('textbox').focus();
    await page.keyboard.type('rushlight');
    const link = page.getByRole('link', { name: /Rushlight transfer film, black/ });
    await expect.poll(() => page.getByRole('table').getByRole('row').count()).toBe(2);
    await link.focus();
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/settings\/\d+$/);
    await settle(page);
    const form = page.getByRole('form', { name: 'Values' });
    await form.getByLabel('passes', { exact: true }).focus();
    await page.keyboard.press('ArrowUp');
    await form.getByLabel('Why, in a few words').focus();
    await page.keyboard.type('two, by keyboard');
    await page.keyboard.press('Enter');
    await page.getByText('two, by keyboard').waitFor();
    expect(await form.getByLabel('passes', { exact: true }).inputValue()).toBe('2');
  });
});
