import { afterAll, beforeAll } from 'vitest';
import { api, leaveBrowser } from '#e2e/support/app.ts';
import type { z } from 'zod';
import type { stationSchema } from '#web/schemas/station.ts';

type Station = z.infer<typeof stationSchema>;

/** A story leaves the benches as it found them, so that stories may be told in any order. */
const found: { readonly id: number; readonly bench: object }[] = [];

beforeAll(async () => {
  const { reply: machines } = await api<{ id: number }[]>('/api/machines');
  for (const { id } of machines) found.push({ id, bench: await readBench(id) });
});

afterAll(async () => {
  await leaveBrowser();
  for (const { id, bench } of found.splice(0)) await api(`/api/stations/${id}`, 'PATCH', bench);
});

async function readBench(id: number): Promise<object> {
  const { blade, mat, loaded } = (await api<Station>(`/api/stations/${id}`)).reply;
  const { condition, lot = '', colour = '' } = loaded ?? {};
  return {
    bladeId: blade?.id ?? null,
    matId: mat?.id ?? null,
    conditionId: condition?.id ?? null,
    lot,
    colour,
  };
}
