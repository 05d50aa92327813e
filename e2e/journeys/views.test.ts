import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Material } from '#core/stack/material.ts';
import type { Station } from '#core/station/station.ts';
import { findViolations } from '#e2e/support/axe.ts';
import { MAIN_VIEWS } from '#e2e/support/views.ts';
import { api, BENCH_SIZE, go, PHONE_SIZE, visit, weighScripts, type Visitor } from '#e2e/support/app.ts';
import { expectFitsPhone } from '#e2e/support/fitsPhone.ts';

const LOT = {
  receivedOn: '2026-11-02',
  storage: 'shelf 3',
  humidityPercent: null,
  forcePercent: 4,
  note: '',
  isArchived: false,
};

let visitor: Visitor;
let phone: Visitor;
beforeAll(async () => {
  [visitor, phone] = await Promise.all([visit('Ines', 1, BENCH_SIZE), visit('Ines', 1, PHONE_SIZE)]);
});
afterAll(() => Promise.all([visitor.leave(), phone.leave()]));

describe('every main view', () => {
  it.each(MAIN_VIEWS)(
    '%s keeps the axe-core rules for WCAG 2.2 AA, throws nothing, and fits a phone without scrolling sideways',
    async (_, path) => {
      visitor.errors.length = 0;
      await go(visitor.page, path);
      expect(await findViolations(visitor)).toEqual([]);
      await expectFitsPhone(visitor);
      expect(visitor.errors).toEqual([]);
    },
  );

  it('the rail fits a bench screen with long names, a lot, a colour and a wait, and two rows of a phone', async () => {
    const { page } = visitor;
    const made = await api<{ id: number; conditionId: number }>('/api/materials', 'POST', {
      name: 'Herringglass extra matt for windows and outdoor notice boards',
      maker: 'Oldstrand and daughters',
      family: 'plainVinyl',
      finish: 'matt',
      colourName: 'pale harbour grey',
      colourHex: '#c8ccd0',
      darkness: 0.2,
      stack: [
        { role: 'face', caliperUm: 80, isMeasured: true },
        { role: 'adhesive', caliperUm: 20, isMeasured: true },
        { role: 'liner', caliperUm: 120, isMeasured: true },
      ],
    });
    expect(made.status).toBe(201);
    const { id, isArchived: _, ...known } = (await api<Material>(`/api/materials/${made.reply.id}`)).reply;
    const lots = [{ ...LOT, code: '2026-11-LONG-LOT-77' }];
    const colours = [{ name: 'very dark harbour blue', hex: '#10202c', darkness: 1, forcePercent: 6 }];
    const details = { ...known.details, lots, colours };
    expect((await api(`/api/materials/${id}`, 'PUT', { ...known, details })).status).toBe(200);
    const before = (await api<Station>('/api/stations/1')).reply.loaded;
    await api('/api/stations/1', 'PATCH', { conditionId: made.reply.conditionId, lotNamed: lots[0]!.code });
    await api('/api/timers', 'POST', { kind: 'inkDry', materialId: id });
    await go(page, '/');
    const over = () =>
      page.getByRole('complementary', { name: 'Station' }).evaluate((rail) => {
        const ends = [...rail.querySelectorAll('button, a')].map((one) => one.getBoundingClientRect().right);
        return [
          Math.max(...ends) - window.innerWidth,
          rail.scrollWidth - rail.clientWidth,
          rail.clientHeight,
        ];
      });
    const [past = 1, scrolled = 1, tall = 999] = await over();
    expect(past).toBeLessThanOrEqual(0);
    expect(scrolled).toBeLessThanOrEqual(0);
    expect(tall).toBeLessThan(90);
    await page.setViewportSize(PHONE_SIZE);
    expect((await over())[2]).toBeLessThan(165);
    await page.getByRole('button', { name: 'More' }).click();
    await page.getByRole('button', { name: /^At the bench/ }).waitFor();
    await page.setViewportSize(BENCH_SIZE);
    await api('/api/stations/1', 'PATCH', { conditionId: before?.condition.id, lot: before?.lot ?? '' });
    for (const timer of (await api<readonly { id: number }[]>('/api/timers')).reply)
      await api(`/api/timers/${timer.id}/clear`, 'POST');
  });

  it('Bench and Test cuts keep the rules on a phone too', async () => {
    for (const path of ['/', '/test-cuts']) {
      await go(phone.page, path);
      expect(await findViolations(phone)).toEqual([]);
    }
  });

  it('Bench ships at most 180 kB of gzipped script', async () => {
    const fresh = await visit('Ines', 1);
    const kilobytes = await weighScripts(fresh.page, '/');
    await fresh.leave();
    expect(kilobytes).toBeGreaterThan(20);
    expect(kilobytes).toBeLessThanOrEqual(180);
  });
});
