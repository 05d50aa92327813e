import { describe, expect, it } from 'vitest';
import { api } from '#e2e/support/app.ts';
import { conditionOf } from '#e2e/support/drawer.ts';
import {
  arriveAt,
  cut,
  dropAll,
  expectStickers,
  haveStickers,
  layOut,
  printHere,
} from '#e2e/support/stickers.ts';

haveStickers();

describe('three pictures and a clip art', () => {
  it('become twelve of each on two cards of a Letter sheet, printed, kissed and perforated on the roll-fed machine', async () => {
    await api('/api/stations/1', 'PATCH', {
      conditionId: await conditionOf('Herringglass matt white', 'laminated'),
    });
    const visitor = await arriveAt(1);
    const jobId = await dropAll(visitor);
    await layOut(visitor);
    const { page } = visitor;
    await printHere(page);
    const run = await cut(visitor);
    await expectStickers(jobId, run, 'roll');
    expect(new Set(run.strokes.map(({ operation }) => operation))).toEqual(new Set(['kiss', 'perforated']));
    expect(visitor.errors).toEqual([]);
  });
});
