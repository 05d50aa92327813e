import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { api, arrive, follow, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { BookPage, SettingSummary } from '#web/schemas/setting.ts';

let ines: Visitor;
let tove: Visitor;
beforeAll(async () => {
  [ines, tove] = await Promise.all([visit('Ines', 1), visit('Tove', 1)]);
});
afterAll(() => Promise.all([ines.leave(), tove.leave()]));

async function findSetting(text: string, operation: string): Promise<SettingSummary> {
  const query = new URLSearchParams({ text, operation });
  const { reply } = await api<BookPage>(`/api/settings?${query}`);
  const [first] = reply.settings;
  if (!first) throw new Error(`the book has no ${operation} setting of ${text}`);
  return first;
}

const force = (visitor: Visitor) =>
  visitor.page.getByRole('form', { name: 'Values' }).getByLabel('force', { exact: true });

describe('the page of a setting', () => {
  it('keeps a new revision with its reason, shows what changed, and restores the old one', async () => {
    const { page } = ines;
    const setting = await findSetting('capstan', 'kiss');
    await go(page, `/settings/${setting.id}`);
    await force(ines).fill('83');
    await page.getByLabel('Why, in a few words').fill('new knife, a little more');
    await page.getByRole('button', { name: /^Keep revision/ }).click();
    await page.getByText('new knife, a little more').waitFor();
    const newest = page.getByRole('region', { name: 'History' }).getByRole('listitem').first();
    await expect.poll(() => newest.textContent()).toMatch(/Ines.*force: 80 gf.*83 gf/);
    await page.getByRole('button', { name: 'Restore' }).first().click();
    await page.getByText(`revision ${setting.revision.revision} restored`).waitFor();
    expect(await force(ines).inputValue()).toBe('80');
    expect(ines.errors).toEqual([]);
  });

  it('says what the machine can do instead of bending a value', async () => {
    const { page } = ines;
    await force(ines).fill('4000');
    await page.getByRole('button', { name: /^Keep revision/ }).click();
    await page.getByText(/force 4000 gf is outside what this machine can do: 10 to 500 gf/).waitFor();
    expect(await force(ines).inputValue()).toBe('4000');
  });

  it('locks against new revisions and opens again', async () => {
    const { page } = ines;
    await page.getByRole('button', { name: 'Lock', exact: true }).click();
    await page.getByText(/Ines locked this setting: unlock it to change it/).waitFor();
    expect(await force(ines).isDisabled()).toBe(true);
    const { id, revision } = await findSetting('capstan', 'kiss');
    const { conditionId, machineId, bladeKind, operation } = await findSetting('capstan', 'kiss');
    const body = {
      conditionId,
      machineId,
      bladeKind,
      operation,
      values: revision.values,
      basedOn: revision.revision,
    };
    expect((await api('/api/settings', 'POST', body)).status).toBe(409);
    await page.getByRole('button', { name: /Unlock/ }).click();
    await page.getByRole('button', { name: 'Lock', exact: true }).waitFor();
    expect((await api<SettingSummary>(`/api/settings/${id}`)).reply.lockedBy).toBe('');
  });

  it('puts the work of two people together, and lets the second decide what both changed', async () => {
    const setting = await findSetting('phosphor', 'kiss');
    await Promise.all([go(ines.page, `/settings/${setting.id}`), go(tove.page, `/settings/${setting.id}`)]);
    await force(ines).fill('146');
    await ines.page.getByRole('button', { name: /^Keep revision/ }).click();
    await ines.page.getByRole('button', { name: 'Keep revision 3' }).waitFor();
    await force(tove).fill('150');
    await tove.page.getByLabel('speed', { exact: true }).fill('120');
    await tove.page.getByRole('button', { name: 'Keep revision 2' }).click();
    await tove.page.getByText(/Ines kept revision 2 meanwhile/).waitFor();
    expect(await force(tove).inputValue()).toBe('146');
    expect(await tove.page.getByLabel('speed', { exact: true }).inputValue()).toBe('120');
    await tove.page.getByRole('button', { name: 'mine, 150 gf' }).click();
    await tove.page.getByRole('button', { name: 'Keep revision 3' }).click();
    await tove.page.getByRole('button', { name: 'Keep revision 4' }).waitFor();
    const after = await findSetting('phosphor', 'kiss');
    expect(after.revision).toMatchObject({ revision: 3, author: 'Tove', values: { force: 150, speed: 120 } });
  });

  it('keeps tabs at the kiss force, and says so', async () => {
    const kiss = await findSetting('herringglass', 'kiss');
    const perforated = await findSetting('herringglass', 'perforated');
    expect(perforated.revision.values.tabForce).toBe(kiss.revision.values.force);
    const { page } = tove;
    await go(page, `/settings/${kiss.id}`);
    await force(tove).fill('111');
    await page.getByRole('button', { name: /^Keep revision/ }).click();
    await page.getByRole('region', { name: 'History' }).getByText('111 gf').first().waitFor();
    await expect
      .poll(async () => (await findSetting('herringglass', 'perforated')).revision.values.tabForce)
      .toBe(111);
    await go(page, `/settings/${perforated.id}`);
    await page.getByText('the kiss force, kept in step').waitFor();
    await page.getByText(/kept in step with the kiss force 111/).waitFor();
  });

  it('offers the exposure by each school with its caution, and takes one', async () => {
    const { page } = tove;
    await go(page, `/settings/${(await findSetting('mooring', 'kiss')).id}`);
    const exposure = page.getByRole('region', { name: 'Exposure' });
    expect(await exposure.getByText(/can snap the tip and cut you/).count()).toBe(2);
    await exposure.getByRole('button', { name: /By eye/ }).focus();
    await page.keyboard.press('Enter');
    await expect.poll(() => page.getByLabel('exposure', { exact: true }).inputValue()).toBe('0.25');
  });

  it('is copied to another machine through grams, as a prediction', async () => {
    const { page } = tove;
    const setting = await findSetting('mooring', 'kiss');
    await go(page, `/settings/${setting.id}`);
    await page.getByLabel('Copy to another machine').selectOption({ label: 'Dunlin desk' });
    await page.getByText(/gf here cuts like level .* there, probably/).waitFor();
    await page.getByRole('button', { name: 'Copy to Dunlin desk' }).click();
    await arrive(page, /^\/settings\/\d+$/);
    await page.getByText('its force was never cut here').waitFor();
    await page.getByText('copied from Gannet 600').waitFor();
    const unit = page.getByRole('form', { name: 'Values' }).getByText('level', { exact: true });
    await unit.first().waitFor();
  });

  it('is made for numbers one already has, and a kept one opens instead of a second', async () => {
    const { page } = tove;
    await go(page, '/settings/new');
    await page.getByLabel('Sheet').selectOption({ label: 'Cork-backed tag sheet · Skerry Mills' });
    await page.getByLabel('Operation').selectOption('kiss');
    await follow(page, page.getByRole('button', { name: 'Go on to the values' }), /^\/settings\/new$/);
    await page.getByText('not kept yet').waitFor();
    await force(tove).fill('180');
    await page.getByLabel('Why, in a few words').fill('from the tape on the lid');
    await page.getByRole('button', { name: 'Keep the first revision' }).click();
    await arrive(page, /^\/settings\/\d+$/);
    const { conditionId, machineId, bladeKind, id } = await findSetting('cork', 'kiss');
    const query = new URLSearchParams({
      conditionId: String(conditionId),
      machineId: String(machineId),
      bladeKind,
      operation: 'kiss',
    });
    await page.goto(page.url().replace(/settings.*/, `settings/new?${query}`));
    expect(page.url()).toMatch(new RegExp(`/settings/${id}$`));
    expect(tove.errors).toEqual([]);
  });
});

describe('the book', () => {
  it('is narrowed by anything on the pack, slips forgiven, and by state and cut', async () => {
    const { page } = ines;
    await go(page, '/settings');
    const rows = page.getByRole('table').getByRole('row');
    await page.getByRole('search', { name: 'Narrow the list' }).getByRole('textbox').fill('hering lamin');
    await expect.poll(() => rows.count()).toBe(4);
    await page.getByLabel('Operation').selectOption('perforated');
    await expect.poll(() => rows.count()).toBe(2);
    await page.getByRole('search', { name: 'Narrow the list' }).getByRole('textbox').fill('nothing like it');
    await page.getByText(/No cut setting matches/).waitFor();
  });

  it('changes many at once by keyboard, and takes it back', async () => {
    const { page } = ines;
    await go(page, '/settings');
    await page.getByLabel('Machine').selectOption({ label: 'Dunlin desk' });
    const boxes = page.getByRole('checkbox', { name: /^Choose .*Drift label paper/ });
    await expect.poll(() => boxes.count()).toBe(2);
    for (const index of [0, 1]) {
      // Focus and key in one: rows that come in anew in between would take the focus with them.
      await boxes.nth(index).press('Space');
      // The row is drawn anew when it is chosen: the next key waits for it.
      await expect.poll(() => boxes.nth(index).isChecked()).toBe(true);
    }
    const bar = page.getByRole('toolbar', { name: 'Chosen settings' });
    await bar.getByRole('button', { name: 'Put away' }).click();
    await page.getByText('2 put away.').waitFor();
    await expect.poll(() => boxes.count()).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(() => boxes.count()).toBe(2);
    await bar.getByLabel('Field to set').selectOption('speed');
    await bar.getByLabel('New value').fill('900');
    await bar.getByRole('button', { name: 'Set for all' }).click();
    await page.getByText(/2 left as they were: speed 900 cm\/s is outside/).waitFor();
    await bar.getByLabel('New value').fill('18');
    await bar.getByRole('button', { name: 'Set for all' }).click();
    await page.getByText(/2 changed, each as a new revision/).waitFor();
    expect((await findSetting('drift label', 'kiss')).revision.values.speed).toBe(18);
  });

  it('compares settings side by side and marks what differs', async () => {
    const { page } = ines;
    await go(page, '/settings');
    await page.getByRole('checkbox', { name: /Choose Herringglass.*kiss/ }).check();
    await page.getByRole('checkbox', { name: /Choose Capstan/ }).check();
    await follow(page, page.getByRole('link', { name: 'Compare' }), /^\/compare$/);
    await page.getByRole('columnheader', { name: /Herringglass/ }).waitFor();
    await page.getByRole('columnheader', { name: /Capstan/ }).waitFor();
    expect(await page.getByRole('img', { name: /Section from the top/ }).count()).toBe(2);
    expect(await page.getByRole('rowheader', { name: /force.*differs/ }).count()).toBe(1);
    expect(await page.getByRole('rowheader', { name: 'passes', exact: true }).count()).toBe(1);
    await go(page, '/compare');
    await page.getByRole('heading', { name: 'Nothing to compare yet' }).waitFor();
  });
});

describe('the Bench', () => {
  it('finds by a lot typed without its dash and loads that lot', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.keyboard.press('/');
    await page.keyboard.type('26f');
    await page.getByRole('option', { name: /Mooring vinyl, navy/ }).waitFor();
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: /^Lot.*26-F/ }).waitFor();
    await page
      .getByText(/doubted/)
      .first()
      .waitFor();
  });

  it('puts what a colour wants on the answer, without a second material', async () => {
    const { page } = ines;
    await go(page, '/');
    await page.getByRole('button', { name: /^Lot, colour/ }).click();
    await page.getByRole('menuitem', { name: /pearl white/ }).click();
    await page.getByText(/-9 % for pearl white/).waitFor();
    await page.getByRole('button', { name: /^Lot, colour/ }).click();
    await page.getByRole('menuitem', { name: /navy/ }).click();
    await page.getByText('force', { exact: true }).first().waitFor();
  });

  it('names the nearest relatives of a sheet never cut here, and a low start from each', async () => {
    const { page } = ines;
    // The page may still be reading itself anew after the colour was changed: keys typed into it would be lost.
    await go(page, '/');
    await page.keyboard.press('/');
    await page.keyboard.type('spindrift');
    await page.getByRole('option', { name: /Spindrift clear film/ }).waitFor();
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Spindrift clear film' }).waitFor();
    const relatives = page.getByRole('region', { name: 'Nearest relatives' });
    await relatives
      .getByText(/same maker and family|same family/)
      .first()
      .waitFor();
    await relatives
      .getByText(/It speaks for/)
      .first()
      .waitFor();
  });

  it('answers with another blade only as doubted, and says which it was kept with', async () => {
    const { page } = ines;
    const { conditionId } = await findSetting('capstan', 'kiss');
    const { reply } = await api<{ blades: { id: number; kind: string; fittedTo: number | null }[] }>(
      '/api/upkeep',
    );
    const deep = reply.blades.find(({ kind }) => kind === '60° deep')!;
    const fine = reply.blades.find(({ fittedTo }) => fittedTo === 1)!;
    await api('/api/stations/1', 'PATCH', { conditionId, bladeId: deep.id });
    await go(page, '/');
    await page.getByText('kept with another blade: 45° fine').waitFor();
    await api('/api/stations/1', 'PATCH', { bladeId: fine.id });
    expect(ines.errors).toEqual([]);
  });
});
