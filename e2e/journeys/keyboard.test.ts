import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { go, settle, visit, type Visitor } from '#e2e/support/app.ts';

let ines: Visitor;
beforeAll(async () => {
  ines = await visit('Ines', 1);
});
afterAll(() => ines.leave());

describe('with the keyboard alone', () => {
  it('finds a material with the slash key and loads it', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.keyboard.press('/');
    await page.keyboard.type('oldstrand navy');
    await page.getByRole('option', { name: /Mooring vinyl, navy/ }).waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Mooring vinyl, navy' }).waitFor();
  });

  it('shows what a doubted setting is doubted for', async () => {
    const { page } = ines;
    await page.getByText('doubted', { exact: false }).first().waitFor();
    await page.getByText(/edges hang all over/).waitFor();
  });

  it('nudges, grades, marks a flaw and takes back', async () => {
    const { page } = ines;
    await go(page, '/test-cuts?operation=kiss');
    const force = page.getByLabel(/cut next at/);
    const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    const start = Number(await force.inputValue());
    const count = await cuts.count();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    await expect.poll(() => force.inputValue()).toBe(String(start + 2));
    await page.getByRole('button', { name: 'fuzzy edge' }).focus();
    await page.keyboard.press('Space');
    await page.keyboard.press('4');
    await expect.poll(() => cuts.count()).toBe(count + 1);
    // It is shown at once, and signed when the server has it.
    await expect.poll(() => cuts.first().textContent()).toMatch(/scored.*kiss · Ines.*fuzzy edge/);
    await page.keyboard.press('u');
    await expect.poll(() => cuts.count()).toBe(count);
  });

  it('takes a typed force as typed, snaps it when it is settled, and gives it up on Escape', async () => {
    const { page } = ines;
    const force = page.getByLabel(/cut next at/);
    await force.fill('9');
    expect(await force.inputValue()).toBe('9');
    await force.pressSequentially('5');
    await force.press('Enter');
    await expect.poll(() => force.inputValue()).toBe('95');
    await force.fill('4000');
    await force.press('Escape');
    expect(await force.inputValue()).toBe('95');
    await force.fill('4000');
    await force.press('Tab');
    await expect.poll(() => force.inputValue()).toBe('500');
  });

  it('asks for another number of passes: another window, a prediction, and back', async () => {
    const { page } = ines;
    const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    const count = await cuts.count();
    await page.getByRole('button', { name: 'One pass more' }).focus();
    await page.keyboard.press('Enter');
    await page.getByText('Only a prediction.').waitFor();
    await expect.poll(() => cuts.count()).toBe(0);
    await page.getByRole('button', { name: 'One pass less' }).focus();
    await page.keyboard.press('Enter');
    await expect.poll(() => cuts.count()).toBe(count);
  });

  it('opens and closes the list of keys', async () => {
    const { page } = ines;
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Help' }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('dialog', { name: 'Help' }).waitFor({ state: 'hidden' });
  });

  it('changes the blade at the rail and can walk to everything on the Bench', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.getByRole('button', { name: /^Blade/ }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('menuitem', { name: /No\. 8/ }).waitFor();
    await page.keyboard.press('Escape');
    const focused = () => page.evaluate(() => document.activeElement?.textContent ?? '');
    await page.getByRole('menu').waitFor({ state: 'hidden' });
    await expect.poll(focused).toMatch(/^Blade/);
    await page.keyboard.press('Shift+Tab');
    await expect.poll(focused).toMatch(/^Station/);
  });

  it('goes to places and operations by two keys, and lands where the work is', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.keyboard.press('g');
    await page.keyboard.press('s');
    await page.getByRole('heading', { name: 'Cut settings' }).waitFor();
    await settle(page);
    const focused = () => page.evaluate(() => document.activeElement?.id ?? '');
    await expect.poll(focused).toBe('main');
    await page.keyboard.press('g');
    await page.keyboard.press('b');
    const through = page.getByRole('button', { name: 'Through', exact: true });
    await through.waitFor();
    await settle(page);
    await page.keyboard.press('o');
    await page.keyboard.press('t');
    await expect.poll(() => through.getAttribute('aria-pressed')).toBe('true');
  });

  it('walks the steps of a job by n and p, and by their numbers', async () => {
    const { page } = ines;
    await go(page, '/jobs/3');
    const isAt = (name: string) =>
      expect
        .poll(() => page.getByRole('tab', { name: new RegExp(`\\d ${name}$`) }).getAttribute('aria-selected'))
        .toBe('true');
    await page.keyboard.press('1');
    await isAt('Drawing');
    await page.keyboard.press('n');
    await isAt('Roles');
    await page.keyboard.press('n');
    await isAt('Sheet');
    await page.keyboard.press('p');
    await isAt('Roles');
  });

  it('keeps single keys to itself where somebody wants none', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.getByRole('button', { name: 'Help: words and keys' }).click();
    await page.getByLabel('Single keys do something in this browser').uncheck();
    await page.keyboard.press('Escape');
    await page.keyboard.press('g');
    await page.keyboard.press('j');
    await page.keyboard.press('?');
    await page.waitForTimeout(300);
    expect(new URL(page.url()).pathname).toBe('/');
    expect(await page.getByRole('dialog').count()).toBe(0);
    await page.getByRole('button', { name: 'Help: words and keys' }).click();
    await page.getByLabel('Single keys do something in this browser').check();
    await page.getByText('What do the words on this page mean?').click();
    await page
      .getByText('The layer you keep', { exact: false })
      .or(page.getByText('How hard the blade'))
      .first()
      .waitFor();
    await page.keyboard.press('Escape');
  });

  it('has a word explain itself in place', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.getByRole('button', { name: 'exposure: what it means' }).focus();
    await page.keyboard.press('Enter');
    await page.getByText(/How far the tip stands out of its holder/).waitFor();
    await page.keyboard.press('Escape');
  });

  it('switches the units everywhere and back', async () => {
    const { page } = ines;
    await page.getByRole('button', { name: /mm: switch units/ }).click();
    await page.getByText(/mil to the liner/).waitFor();
    await settle(page);
    await page.getByRole('button', { name: /in: switch units/ }).click();
    await page.getByText(/µm to the liner/).waitFor();
    expect(ines.errors).toEqual([]);
  });
});
