import { beforeAll, describe, expect, it } from 'vitest';
import { api, go, setUp, visit } from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import { unknownFilm } from '#e2e/support/unknownFilm.ts';

/** Searches that force alone does not end: what is cut before the story begins is told over HTTP. */
let conditionId = 0;
beforeAll(async () => {
  conditionId = (
    await setUp<{ conditionId: number }>('/api/materials', 'POST', unknownFilm('Kittiwake film'))
  ).conditionId;
});

/** What is told of a search. */
interface Search {
  readonly dialIn: { readonly id: number; readonly passes: number };
  readonly bench: {
    readonly answer: {
      readonly advice: { readonly kind: string };
      readonly advisedForce: number;
      readonly otherWay: object | null;
    } | null;
  };
}

/** Opens the search for what is loaded, or joins it. */
function openSearch(machineId: number, operation: string, passes?: number): Promise<Search> {
  return setUp<Search>('/api/dial-ins', 'POST', { machineId, operation, ...(passes ? { passes } : {}) });
}

describe('when no good window exists', () => {
  it('says so and what would open it', async () => {
    const { id: machineId } = await setUp<{ id: number }>('/api/machines', 'POST', rollCutter('Petrel 90'));
    await api(`/api/stations/${machineId}`, 'PATCH', { conditionId });
    // One parts nothing, the next scars the mat: whatever the force.
    const shallow = [240, 255, 260, 258].map((force) => ({ force, grade: 6 }));
    const deep = [280, 265, 270, 262].map((force) => ({ force, grade: 8 }));
    const grades = [...shallow, ...deep];
    const search = await openSearch(machineId, 'through');
    await setUp(`/api/dial-ins/${search.dialIn.id}/grades`, 'POST', { grades });
    const visitor = await visit('Ines', machineId);
    const { page } = visitor;
    await go(page, '/test-cuts?operation=through');
    const ways = page.getByRole('region', { name: 'Other ways' });
    await ways.waitFor();
    const stop = ways.getByRole('row', { name: /exposure that stops short of the mat/ });
    expect(await stop.textContent()).toMatch(/\+\d+/);
    await ways.getByRole('button', { name: '2 lighter passes' }).click();
    const passesNow = async () =>
      (await api<{ passes: number }[]>(`/api/dial-ins?machineId=${machineId}`)).reply[0]!.passes;
    await expect.poll(passesNow).toBe(2);
    const cuts = page.getByRole('region', { name: 'Cuts so far' }).getByRole('listitem');
    await expect.poll(() => cuts.count()).toBe(0);
    await visitor.leave();
  });

  it('goes on in more passes with a tap where the machine is too weak for one, and finds the force there', async () => {
    const weak = rollCutter('Petrel 80');
    const machine = { ...weak, forceScale: { ...weak.forceScale, max: 150 } };
    const { id } = await setUp<{ id: number }>('/api/machines', 'POST', machine);
    await api(`/api/stations/${id}`, 'PATCH', { conditionId });
    // The stack parts at 260 gf in one pass, and at that over the root of their number in more.
    const seen = (force: number, passes: number) => {
      const reach = force * Math.sqrt(passes);
      return reach < 200 ? 5 : reach < 260 ? 6 : reach < 330 ? 7 : 8;
    };
    const advised = async (search: Search): Promise<Search> => {
      const { answer } = search.bench;
      if (!answer || answer.otherWay || !['cut', 'repeat', 'confirm'].includes(answer.advice.kind))
        return search;
      const grade = seen(answer.advisedForce, search.dialIn.passes);
      const grades = [{ force: answer.advisedForce, grade }];
      return advised(await setUp<Search>(`/api/dial-ins/${search.dialIn.id}/grades`, 'POST', { grades }));
    };
    let search = await advised(await openSearch(id, 'through', 1));
    const visitor = await visit('Ines', id);
    const { page } = visitor;
    const stop = page.getByText('Stop cutting: keep');
    const goOn = page.getByRole('button', { name: /^Go on in \d passes$/ });
    const passesNow = () => page.getByLabel('passes now').textContent().then(Number);
    for (let ways = 0; ways < 4 && search.bench.answer?.otherWay; ways++) {
      await go(page, '/test-cuts?operation=through');
      const before = await passesNow();
      await goOn.click();
      await expect.poll(passesNow).toBeGreaterThan(before);
      search = await advised(await openSearch(id, 'through'));
    }
    expect(search.dialIn.passes).toBeGreaterThan(2);
    await go(page, '/test-cuts?operation=through');
    await stop.waitFor();
    await page.getByRole('button', { name: /^Keep \d+ gf$/ }).click();
    const kept = page.getByText(/^Kept: /);
    await kept.waitFor();
    const force = Number(/Kept: (\d+) gf/.exec((await kept.textContent()) ?? '')?.[1]);
    expect(seen(force, await passesNow())).toBe(7);
    await visitor.leave();
  });
});
