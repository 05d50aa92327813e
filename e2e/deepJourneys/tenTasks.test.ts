import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { CountedHands } from '#e2e/support/countedHands.ts';
import { api, arrive, BENCH_SIZE, go, visit, type Visitor } from '#e2e/support/app.ts';
import { seenGrade } from '#e2e/support/findHere.ts';

/**
 * Ten tasks of a working day, done by somebody with a fresh browser who reads only the screen: each has a number of
 * clicks, or of keys, that it may take. Lists count two clicks, and so does dropping files.
 */
const visitors: Visitor[] = [];
let hands: CountedHands;
beforeEach(async () => {
  const visitor = await visit('', 1, BENCH_SIZE);
  visitors.push(visitor);
  hands = new CountedHands(visitor.page);
});
afterAll(async () => {
  expect(visitors.flatMap(({ errors }) => errors)).toEqual([]);
  for (const visitor of visitors) await visitor.leave();
});

const named = (name: string | RegExp) => hands.page.getByRole('button', { name });
const place = (name: string) => hands.page.getByRole('link', { name, exact: true });
const field = (label: string | RegExp) => hands.page.getByLabel(label);
const find = () => field('Find a material to load');

/** Finds a sheet by what is typed and loads the first that is found. */
async function load(text: string, option: RegExp, heading: string): Promise<void> {
  const { page } = hands;
  await hands.type(find(), text);
  await hands.click(page.getByRole('option', { name: option }).first());
  await page.getByRole('heading', { name: heading }).waitFor();
}

/** Sends what the last step shows, after agreeing to what it asks, and unloads when it is cut. */
async function cutAndUnload(): Promise<void> {
  const { page } = hands;
  const send = named(/^Send to/);
  await send.waitFor();
  for (const box of await page.getByRole('checkbox', { name: /send it anyway/ }).all()) await hands.tick(box);
  await hands.click(send);
  await arrive(page, /^\/runs\/\d+$/);
  const unload = named(/unload/);
  const goOn = named(/^Go on|Done by hand, go on/).first();
  for (let stop = 0; stop < 4; stop++) {
    await unload.or(goOn).first().waitFor({ timeout: 90_000 });
    if (await unload.isVisible()) break;
    await hands.click(goOn);
    await goOn.waitFor({ state: 'hidden' });
  }
  await hands.click(unload);
}

async function noteClean(): Promise<void> {
  await hands.click(hands.page.getByText('Clean', { exact: true }));
  await hands.click(named('Note it'));
  await hands.page.getByText(/^Noted/).waitFor();
}

describe('by mouse', () => {
  it('1: a new laminated vinyl has its first answer in 14 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.type(find(), 'Skerry vinyl 90');
    await hands.click(page.getByRole('link', { name: 'Add a new material by its layers' }));
    await arrive(page, /materials.new$/);
    await hands.type(field('Maker'), 'Skerry Mills');
    await hands.type(field('Layer 1 caliper'), '90');
    await hands.click(named('Layer on top'));
    await hands.choose(field('Layer 1 role'), { label: 'laminate' });
    await hands.type(field('Layer 1 caliper'), '40');
    await hands.click(named('Keep it and load it here'));
    await arrive(page, /^\/$/);
    await page.getByText('Never cut here.').waitFor();
    expect(hands.clicks).toBeLessThanOrEqual(14);
  });

  it('2: its kiss is found and kept on a stand-in in 12 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.click(page.getByRole('link', { name: 'Test cut', exact: true }));
    await arrive(page, /test-cuts/);
    const stop = page.getByText('Stop cutting: keep');
    const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    for (let made = 0; made < 8 && !(await stop.isVisible()); made++) {
      const cut = named(/^Cut .+ on Gannet 600$/);
      await expect.poll(() => cut.isEnabled()).toBe(true);
      await hands.click(cut);
      await expect.poll(() => cut.isEnabled()).toBe(false);
      await page.getByText('Look at it, then tap what you see').waitFor();
      await hands.click(named(new RegExp(`^${await seenGrade(page)} `)).first());
      await expect.poll(() => cuts.count()).toBe(made + 1);
    }
    await stop.waitFor();
    await hands.click(named('Take it out'));
    await hands.click(named(/^Keep \d+ gf$/));
    await page.getByText(/^Kept: /).waitFor();
    expect(hands.clicks).toBeLessThanOrEqual(12);
  });

  it('3: a machine of one’s own with levels is weighed and a setting carried over in 22 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.click(place('Upkeep'));
    await arrive(page, /upkeep/);
    await hands.click(page.getByRole('link', { name: 'Add a machine' }));
    await arrive(page, /machines.new/);
    await hands.type(field('What you call it'), 'Kitchen cutter');
    await hands.choose(field('Counted in').first(), { label: 'levels' });
    await hands.type(field('Highest'), '20');
    await hands.click(named('Keep it and work at it'));
    await arrive(page, /^\/$/);
    await hands.click(place('Upkeep'));
    await arrive(page, /upkeep/);
    await hands.click(page.getByRole('link', { name: /Kitchen cutter/ }).first());
    await arrive(page, /machines.\d+/);
    for (const [row, [level, grams]] of [
      ['2', '35'],
      ['11', '190'],
      ['20', '352'],
    ].entries()) {
      await hands.type(field(`Reading ${row + 1}: set to`), level!);
      await hands.type(field(`Reading ${row + 1}: grams`), grams!);
    }
    await hands.click(named('Keep this scale'));
    await page.getByText(/In force: measured/).waitFor();
    await hands.click(place('Cut settings'));
    await arrive(page, /settings/);
    await hands.click(page.getByRole('link', { name: /Herringglass matt white/ }).first());
    await arrive(page, /settings.\d+/);
    await hands.choose(field('Copy to another machine'), { label: 'Kitchen cutter' });
    await hands.click(named(/^Copy/));
    await page.waitForURL(/settings.\d+$/);
    await page.getByText('Kitchen cutter').first().waitFor();
    expect(hands.clicks).toBeLessThanOrEqual(22);
  });

  it('4: twelve stickers with border and perforation on Letter are sent, looked at and noted in 24 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await load('herringglass laminated', /laminated/, 'Herringglass matt white, laminated');
    await hands.click(place('Jobs'));
    await arrive(page, /jobs/);
    const disc = (colour: string) =>
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="24mm" height="24mm" viewBox="0 0 24 24"><circle cx="12" cy="12" r="11" fill="${colour}"/></svg>`,
      );
    const files = ['#7a2b1f', '#1f4f4b', '#4a2340'].map((colour, at) => ({
      name: `badge ${at + 1}.svg`,
      mimeType: 'image/svg+xml',
      buffer: disc(colour),
    }));
    await hands.drop(page.locator('input[type=file]'), files);
    await hands.type(field(/^Copies of each/), '4', true);
    await hands.click(named('Make the job'));
    await arrive(page, /^\/jobs\/\d+$/);
    await hands.click(page.getByRole('tab', { name: /\d Sheet/ }));
    await hands.choose(field('Size').first(), 'Letter');
    await hands.tick(field('On carrier cards, cut out of the sheet'));
    await page.getByText(/12 pieces on (one|\d) card/).waitFor();
    await hands.click(page.getByRole('tab', { name: /\d Cut/ }));
    await cutAndUnload();
    await noteClean();
    expect(hands.clicks).toBeLessThanOrEqual(24);
  });

  it('5: a card is creased and cut in 12 clicks', async () => {
    const { page } = hands;
    await page
      .context()
      .addCookies([{ name: 'feather_station', value: '2', url: new URL(await here()).origin }]);
    await go(page, '/');
    await load('seedbox', /Seedbox carton/, 'Seedbox carton');
    await hands.click(place('Jobs'));
    await arrive(page, /jobs/);
    const card =
      '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="70mm" viewBox="0 0 100 70" fill="none"><g id="crease"><path d="M50 1V69" stroke="#00f" stroke-dasharray="2 2"/></g><rect x="1" y="1" width="98" height="68" stroke="#f00"/></svg>';
    await hands.drop(page.locator('input[type=file]'), {
      name: 'card.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(card),
    });
    await arrive(page, /^\/jobs\/\d+$/);
    await page.getByRole('radio', { name: 'Crease', checked: true }).waitFor();
    await hands.click(page.getByRole('tab', { name: /\d Cut/ }));
    await cutAndUnload();
    await noteClean();
    expect(hands.clicks).toBeLessThanOrEqual(12);
  });

  it('6: a stencil with islands gets its bridges in 8 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await load('lantern', /Lantern stencil sheet/, 'Lantern stencil sheet');
    await hands.click(place('Jobs'));
    await arrive(page, /jobs/);
    const letter =
      '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="80mm" viewBox="0 0 80 80" fill="none" stroke="#000"><rect x="2" y="2" width="76" height="76"/><circle cx="40" cy="40" r="24"/><circle cx="40" cy="40" r="12"/></svg>';
    await hands.drop(page.locator('input[type=file]'), {
      name: 'letter o.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(letter),
    });
    await arrive(page, /^\/jobs\/\d+$/);
    await hands.click(page.getByRole('tab', { name: /\d Drawing/ }));
    await hands.click(named(/^Hold it by bars/).first());
    await expect.poll(() => named(/^Hold it by bars/).count()).toBe(0);
    expect(hands.clicks).toBeLessThanOrEqual(8);
  });

  it('7: corners that hang since this morning are answered in 5 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.click(place('Faults'));
    await arrive(page, /faults/);
    await hands.click(named(/corners hang/));
    await hands.click(named(/^(I do this|Set )/).first());
    await hands.click(named('It helped'));
    await expect.poll(() => page.getByText('Did it help?').count()).toBe(0);
    expect(hands.clicks).toBeLessThanOrEqual(5);
  });

  it('8: tomorrow is planned and a wait runs in 6 clicks', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.click(place('Day'));
    await arrive(page, /day/);
    await hands.click(page.getByRole('link', { name: /the day after|tomorrow/ }));
    await arrive(page, /day/);
    const job = page.locator('option', { hasText: 'Tide-table' }).first();
    await hands.choose(field('Add a job'), (await job.getAttribute('value'))!);
    await page.getByText(/Ends at/).waitFor();
    await hands.click(named(/^Waits/));
    await hands.click(page.getByRole('dialog').getByRole('button', { name: 'ink dries to the touch' }));
    await expect.poll(async () => (await api<unknown[]>('/api/timers')).reply.length).toBe(1);
    expect(hands.clicks).toBeLessThanOrEqual(6);
  });
});

/** Where the application answers. */
async function here(): Promise<string> {
  await go(hands.page, '/');
  return hands.page.url();
}

describe('by keyboard', () => {
  it('9a: a kiss is found and kept in 60 keys', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.keys('/');
    await hands.letters('drift');
    await page
      .getByRole('option', { name: /Drift label paper/ })
      .first()
      .waitFor();
    await hands.keys('Enter');
    await page
      .getByRole('heading', { name: /Drift label paper/ })
      .first()
      .waitFor();
    await hands.keys('g', 't');
    await arrive(page, /test-cuts/);
    const stop = page.getByText('Stop cutting: keep');
    const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    for (let made = 0; made < 10 && !(await stop.isVisible()); made++) {
      const cut = named(/^Cut .+ on Gannet 600$/);
      await expect.poll(() => cut.isEnabled()).toBe(true);
      await hands.keys('c');
      await expect.poll(() => cut.isEnabled()).toBe(false);
      await page.getByText('Look at it, then tap what you see').waitFor();
      const before = await cuts.count();
      await hands.keys(String(await seenGrade(page)));
      await expect.poll(() => cuts.count()).toBe(before + 1);
    }
    await stop.waitFor();
    await hands.keys('x', 'k');
    await page.getByText(/^Kept: /).waitFor();
    expect(hands.strokes).toBeLessThanOrEqual(60);
    expect(hands.clicks).toBe(0);
  });

  it('9b: corners that hang are answered in 35 keys', async () => {
    const { page } = hands;
    await go(page, '/');
    await hands.keys('g', 'f');
    await arrive(page, /faults/);
    await hands.tabTo(named(/corners hang/));
    await hands.keys('Enter');
    await named(/^(I do this|Set )/)
      .first()
      .waitFor();
    await hands.keys('d');
    await named('It helped').waitFor();
    await hands.keys('h');
    await expect.poll(() => page.getByText('Did it help?').count()).toBe(0);
    expect(hands.strokes).toBeLessThanOrEqual(35);
    expect(hands.clicks).toBe(0);
  });
});
