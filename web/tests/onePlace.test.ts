import { describe, expect, it, vi } from 'vitest';
import { rankActions } from '#core/faults/rankActions.ts';
import { rankCauses } from '#core/faults/rankCauses.ts';
import { CAUSES, type Cause } from '#core/faults/causes.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import { uncutOf } from '#core/perforation/holding.ts';
import { usualWaits } from '#core/prep/waitOrder.ts';
import { findWait } from '#core/prep/waits.ts';
import { describeUnknown } from '#core/stack/describeUnknown.ts';
import { FAMILIES, type Family } from '#core/stack/families/families.ts';
import { P } from '#core/threshold/sheetModel/sheetParameters.ts';
import { fitTack } from '#core/wear/tackIndex.ts';
import { describeApi } from '#web/http/describeApi.ts';
import { findEndpoint } from '#web/http/serveApi.ts';
import { consultReplySchema } from '#web/schemas/faults.ts';
import { newMaterialSchema } from '#web/schemas/station.ts';

/**
 * What is one thing in the trade is one thing in the code: a toy family, a toy cause and a toy endpoint are written down
 * in one place each, and everything that should know them does. A toy language: `e2e/driven/toyLanguage.test.ts`.
 */
const toys = vi.hoisted(() => ({
  family: {
    name: 'toy felt',
    startStack: [{ role: 'body', caliperUm: 900, isMeasured: false }],
    densityKgPerM3: 300,
    habit: { usualGf: 410, throughRatio: 1, midFaceUm: 900, midLinerUm: 0 },
    startSpeedMmPerS: 30,
    throughPasses: 3,
    finestMm: 2.5,
    abrasion: 0.7,
    wantedTack: [60, 80],
    inkDryMin: { matt: 77, gloss: 78 },
    tensileMPa: { liner: 30, body: 4 },
    isFibrous: true,
    isSlick: false,
    isPaintedThrough: false,
    isPressedOn: true,
  },
  cause: {
    words: 'a cat on the mat',
    why: 'hair lifts the sheet',
    prior: 0.05,
    shows: { sheetMoved: 0.95, fuzzy: 0.9 },
    given: { oneSpot: 0.99 },
    mendedBy: { freshMat: 0.99 },
  },
}));

vi.mock('#core/stack/families/listFamilies.ts', async (load) => {
  const { FAMILY_FACTS } = await load<{ FAMILY_FACTS: object }>();
  return { FAMILY_FACTS: { ...FAMILY_FACTS, toyFelt: toys.family } };
});
vi.mock('#core/faults/listCauses.ts', async (load) => {
  const { CAUSE_FACTS } = await load<{ CAUSE_FACTS: object }>();
  return { CAUSE_FACTS: { ...CAUSE_FACTS, cat: toys.cause } };
});
vi.mock('#web/endpoints/workshop/health.ts', async (load) => {
  const { defineEndpoint } = await import('#web/http/defineEndpoint.ts');
  const { z } = await import('zod');
  const getToy = defineEndpoint({
    method: 'GET',
    role: 'nobody',
    path: '/api/toys/{name}',
    summary: 'A toy.',
    params: z.object({ name: z.string() }),
    reply: z.string(),
    handle: ({ params }) => Promise.resolve(params.name),
  });
  return { ...(await load<object>()), getToy };
});

describe('a family', () => {
  const felt = 'toyFelt' as Family;

  it('is known wherever a sheet is', () => {
    expect(FAMILIES.at(-1)).toBe(felt);
    const sheet = {
      family: felt,
      name: '',
      day: 'Monday',
      isPrinted: false,
      isLaminated: false,
      isDark: false,
    };
    const { name, stack } = describeUnknown({ ...sheet, totalUm: null });
    expect([name, stack[0]?.caliperUm]).toEqual(['Unnamed toy felt, Monday', 900]);
    const pack = { name, maker: 'Toy', family: felt, colourHex: '#ffffff', darkness: 0, stack };
    expect(newMaterialSchema.safeParse(pack).success).toBe(true);
    const traits = { family: felt, stack, darkness: 0, isPrinted: false };
    const place = { traits, materialId: 1, machineId: 1, condition: 'bare', lot: '', colour: '' } as never;
    expect(Math.exp(sheetPrior(place, null).mean[P.threshold]!)).toBeGreaterThan(300);
    expect(fitTack(50, felt)).toBe('slips');
    expect(findWait('inkDry', { family: felt, finish: 'matt' }, {}).minutes).toBe(77);
    expect(usualWaits({ family: felt, condition: 'bare', isPrinted: true })).toContain('transferRests');
    expect(uncutOf(stack, felt).tensileMPa).toBe(4);
  });
});

describe('a cause', () => {
  it('is argued for, told and mended', () => {
    expect(CAUSES.at(-1)).toBe('cat');
    const ranked = rankCauses(['sheetMoved', 'fuzzy'], { oneSpot: true });
    expect(ranked[0]?.cause).toBe('cat');
    expect(ranked[0]?.reason).toMatch(/hair lifts the sheet; fluff/);
    expect(rankActions(ranked, ['sheetMoved', 'fuzzy'])[0]?.action).toBe('freshMat');
    const causes = [{ cause: 'cat' as Cause, chance: 1, words: '', reason: '' }];
    expect(consultReplySchema.shape.causes.safeParse(causes).success).toBe(true);
  });
});

describe('an endpoint', () => {
  it('is found by its address and stands in the description, with no other list', () => {
    expect(findEndpoint('GET', '/api/toys/a%20b').named).toEqual({ name: 'a b' });
    expect(describeApi().paths).toHaveProperty(['/api/toys/{name}', 'get', 'summary'], 'A toy.');
    expect(() => findEndpoint('DELETE', '/api/toys/a')).toThrow(/takes GET, not DELETE/);
    expect(() => findEndpoint('GET', '/api/toys/%E0%A4%A')).toThrow(/% that stands for nothing/);
    expect(() => findEndpoint('GET', '/api/toys')).toThrow(/There is nothing/);
  });
});
