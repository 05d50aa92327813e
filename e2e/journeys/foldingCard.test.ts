import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { acceptAll, api, arrive, go, hearNothing } from '#e2e/support/app.ts';
import { conditionOf, drawAs, python, type Drawer } from '#e2e/support/drawer.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';

/** A folding card from another program: creases, a slit and a light-pass outline, read and written as ezdxf does. */
/** A card of 100 x 70 mm as Debian's python3-ezdxf writes it: outline with rounded corners, two folds, a slit. */
const CARD_SCRIPT = `
import sys, ezdxf
doc = ezdxf.new('R2010', setup=True)
doc.units = ezdxf.units.MM
for name, colour in (('CREASE', 30), ('SLIT', 1), ('OUTLINE', 7)): doc.layers.add(name, color=colour)
msp = doc.modelspace()
b = 0.41421356
msp.add_lwpolyline([(5,0,0),(95,0,b),(100,5,0),(100,65,b),(95,70,0),(5,70,b),(0,65,0),(0,5,b)], format='xyb', close=True, dxfattribs={'layer':'OUTLINE'})
msp.add_line((35,0.5),(35,69.5), dxfattribs={'layer':'CREASE'})
msp.add_line((65,0.5),(65,69.5), dxfattribs={'layer':'CREASE'})
msp.add_arc((50,20), 8, 200, 340, dxfattribs={'layer':'SLIT'})
doc.saveas(sys.argv[1])
`;
/** Reads a DXF with python3-ezdxf and says what lies on each layer and how large it is. */
const READ_SCRIPT = `
import sys, json, ezdxf
from ezdxf import bbox
doc = ezdxf.readfile(sys.argv[1])
msp = doc.modelspace()
found = {}
for e in msp: found[e.dxf.layer] = found.get(e.dxf.layer, 0) + 1
box = bbox.extents(msp)
print(json.dumps({'layers': found, 'size': [box.size.x, box.size.y], 'min': [box.extmin.x, box.extmin.y]}))
`;

let drawer: Drawer;
beforeAll(async () => {
  drawer = await drawAs('Mira', 2);
});
afterAll(() => drawer.leave());

describe('a folding card on the mat-fed machine', () => {
  let id = 0;

  it('reads the card that ezdxf wrote at its true size, with roles by its layers', async () => {
    const { page } = drawer.visitor;
    const file = join(drawer.folder, 'card.dxf');
    python(CARD_SCRIPT, file);
    await api('/api/stations/2', 'PATCH', { conditionId: await conditionOf('Seedbox carton', 'bare') });
    id = await drawer.open('card.dxf', readFileSync(file, 'utf8'));
    await page.getByText(/the layer is named "CREASE"/).waitFor();
    for (const role of ['Crease', 'Slit', 'Through']) {
      expect(await page.getByRole('radio', { name: role, checked: true }).count()).toBe(1);
    }
    await drawer.step('Drawing');
    await page.getByText('100.0 × 70.0 mm as drawn').waitFor();
    await page.getByText('Nothing found').waitFor();
  });

  it('creases with the second tool, slits, and frees the piece in two light passes, in this order', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Passes');
    await page.getByRole('heading', { name: 'In this order' }).waitFor();
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${id}/plan`);
    expect(plan.passes.map(({ role, seat, values }) => [role, seat, values.passes])).toEqual([
      ['crease', 2, 1],
      ['slit', 1, 2],
      ['through', 1, 2],
    ]);
    expect(plan.freeing!.pick).toBe('severalLight');
    const hpgl = readFileSync(await drawer.fetchFile(`/api/jobs/${id}/machine-file`, 'card.hpgl'), 'utf8');
    expect([...hpgl.matchAll(/SP(\d)/g)].map((match) => match[1])).toEqual(['2', '1', '0']);
  });

  it('writes DXF that ezdxf reads: layers by role, on the sheet where it lies (0.02 mm)', async () => {
    const file = await drawer.fetchFile(`/api/jobs/${id}/layers?format=dxf`, 'out.dxf');
    const read = JSON.parse(python(READ_SCRIPT, file)) as {
      layers: Record<string, number>;
      size: [number, number];
      min: [number, number];
    };
    expect(read.layers).toEqual({ CREASE: 2, SLIT: 1, THROUGH: 1 });
    expect(Math.abs(read.size[0] - 100)).toBeLessThan(0.02);
    expect(Math.abs(read.size[1] - 70)).toBeLessThan(0.02);
    expect(Math.abs(read.min[0] - 6)).toBeLessThan(0.02);
  });

  it('is cut on the stand-in with every stroke reported', async () => {
    const { page } = drawer.visitor;
    await drawer.step('Cut');
    await acceptAll(page);
    await page.getByRole('button', { name: /^Send to/ }).click();
    await arrive(page, /^\/runs\/\d+$/);
    await page.getByRole('button', { name: /unload/ }).click({ timeout: 60_000 });
    await page.getByText('Done', { exact: true }).waitFor();
    const run = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
    const { reply } = await api<{ strokes: unknown[]; outcomes: unknown[]; state: string }>(
      `/api/runs/${run}`,
    );
    expect(reply.state).toBe('done');
    expect(reply.outcomes).toHaveLength(reply.strokes.length);
  });

  it('keeps a rule for the next drawing, and two people are told of each other', async () => {
    const { page } = drawer.visitor;
    await hearNothing(drawer.visitor);
    await go(page, `/jobs/${id}`);
    await drawer.step('Roles');
    await page.getByRole('button', { name: 'Make it a rule' }).first().click();
    await page.getByText('A rule of this workshop.').waitFor();
    const { reply: job } = await api<JobReply>(`/api/jobs/${id}`);
    await api(`/api/jobs/${id}`, 'PATCH', { version: job.version, name: 'Card, second name' });
    await page.getByRole('radio', { name: 'Score' }).first().click();
    await page.getByText(/Somebody else changed this job meanwhile/).waitFor();
    expect((await api<JobReply>(`/api/jobs/${id}`)).reply.roles).toEqual(job.roles);
  });

  it('refuses a broken drawing with line and reason, and nothing is lost', async () => {
    const { page } = drawer.visitor;
    await go(page, '/jobs');
    const before = (await api<unknown[]>('/api/jobs')).reply.length;
    await page.locator('input[type=file]').setInputFiles({
      name: 'broken.svg',
      mimeType: 'image/svg+xml',
      buffer: Buffer.from('<svg width="9mm" height="9mm">\n<path d="M0 0 L banana"/></svg>'),
    });
    await page.getByText(/line 2: a path cannot be read/).waitFor();
    expect((await api<unknown[]>('/api/jobs')).reply).toHaveLength(before);
  });
});
