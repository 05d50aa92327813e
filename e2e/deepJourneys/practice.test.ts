import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bestForce, openForce } from '#core/practice/practiceForce.ts';
import { findExercise, type ForceExercise } from '#core/practice/exercises.ts';
import { api, go, visit, type Visitor } from '#e2e/support/app.ts';

/** Somebody learns the trade: cuts hidden sheets, is scored beside others, and nothing of it reaches the settings. */
let learner: Visitor;
beforeAll(async () => {
  learner = await visit('Tove', 1);
});
afterAll(() => learner.leave());

const SEED = 3;
const open = openForce(findExercise('first-kiss') as ForceExercise, SEED);
describe('practice', () => {
  it('is reached by keys, and lists ten exercises', async () => {
    const { page } = learner;
    await go(page, '/');
    await page.keyboard.press('g');
    await page.keyboard.press('p');
    await page.getByRole('heading', { name: 'Practice', exact: true }).waitFor();
    expect(await page.getByRole('region', { name: 'Practice' }).getByRole('listitem').count()).toBe(10);
  });

  it('keeps quiet until it is asked, then names what is seen and what to cut next', async () => {
    const { page } = learner;
    await go(page, `/practice/first-kiss?seed=${SEED}`);
    const force = page.getByLabel('Force, gf');
    await force.fill('20');
    await force.press('Enter');
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Cut a piece' }).click();
    const pieces = page.getByRole('region', { name: 'Pieces cut' });
    await pieces.getByText('20 gf').waitFor();
    expect(await page.getByText(/Cut next at/).count()).toBe(0);
    await page.getByLabel('The tool advises').check();
    await page
      .getByText(/Cut next at|Probably|Keep/)
      .first()
      .waitFor();
  });

  it('scores what was kept beside others on the same sheet, and tells the rule', async () => {
    const { page } = learner;
    const { force: best } = bestForce(open, 1);
    const force = page.getByLabel('Force, gf');
    await force.fill(String(best));
    await force.press('Enter');
    await page.getByRole('button', { name: `Keep ${best} gf` }).click();
    const scores = page.getByRole('region', { name: 'How it went' });
    await scores.getByText(/^Found\./).waitFor();
    await scores.getByRole('row', { name: /^Pale Feather/ }).waitFor();
    expect(await scores.getByRole('row').count()).toBe(5);
    await scores.getByText(/Start low and go up/).waitFor();
    await go(page, '/practice');
    await page.getByText('found', { exact: true }).waitFor();
  });

  it('mends a fault one thing at a time, and tells what is only covered', async () => {
    const { page } = learner;
    await go(page, `/practice/since-this-morning?seed=${SEED}`);
    await page.getByRole('button', { name: /^a fresh blade/ }).click();
    const tried = page.getByRole('region', { name: 'What was tried' });
    await tried.getByText('a fresh blade').waitFor();
    await page.getByRole('button', { name: /It is mended|Give up/ }).click();
    await page.getByText(/adhesive or fluff on the blade/).waitFor();
    await page.getByRole('row', { name: /^By habit/ }).waitFor();
  });

  it('finds tabs, and shows the teacher what sheets hide', async () => {
    const { page } = learner;
    await go(page, `/practice/tabs?seed=${SEED}`);
    await page.getByRole('button', { name: 'Cut a piece and push it out' }).click();
    await page.getByRole('button', { name: /^Keep / }).click();
    await page.getByRole('row', { name: /^Pale Feather/ }).waitFor();
    await go(page, '/practice/teacher');
    await page.getByLabel('Show what they hide').check();
    await page
      .getByText(/^Best: \d+ gf, right \d+ times in 100/)
      .first()
      .waitFor();
  });

  it('leaves nothing behind, and leads back from an exercise that is not there', async () => {
    const { page } = learner;
    const cuts = async () => (await api<readonly unknown[]>('/api/dial-ins')).reply.length;
    const before = await cuts();
    await go(page, `/practice/levels?seed=${SEED}`);
    await page.getByRole('button', { name: 'Cut a piece' }).click();
    await page.getByRole('button', { name: 'No force is right' }).click();
    await page.getByText(/There is one/).waitFor();
    expect(await cuts()).toBe(before);
    expect((await page.goto(new URL('/practice/none', page.url()).href))?.status()).toBe(404);
    await page.getByRole('link', { name: 'Back' }).click();
    await page.getByRole('heading', { name: 'Practice', exact: true }).waitFor();
    learner.errors.splice(0);
  });
});
