import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { CompareView } from '#web/islands/compare/CompareView.tsx';
import { describeValue, unitOf } from '#web/islands/setting/describeValue.ts';
import { NewSettingForm } from '#web/islands/setting/NewSettingForm.tsx';
import { SettingView } from '#web/islands/setting/SettingView.tsx';
import {
  sampleAnswer,
  sampleBlade,
  sampleMachine,
  sampleMaterial,
  sampleRevision,
  sampleSetting,
} from '#web/tests/sampleBook.ts';
import type { ComparedSetting } from '#web/schemas/comparison.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';

const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const desk = {
  ...sampleMachine,
  id: 5,
  name: 'Dunlin desk',
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
} as const;

function page(operation: Operation = 'kiss', change: Partial<SettingPageData> = {}): SettingPageData {
  const first = {
    ...sampleRevision,
    revision: 1,
    values: { ...sampleRevision.values, force: 98 },
    reason: 'first try',
  };
  return {
    key: { conditionId: 10, machineId: 2, bladeKind: '45° fine', operation },
    summary: sampleSetting({ operation }),
    revisions: [sampleRevision, first],
    evidence: [],
    material: sampleMaterial,
    condition: sampleMaterial.conditions[0]!,
    machine: sampleMachine,
    blade: sampleBlade,
    start: sampleRevision.values,
    startSources: sampleRevision.sources,
    kissForce: 106,
    onSheet: null,
    machines: [sampleMachine, desk],
    bench: sampleAnswer(),
    relatives: [],
    audit: [
      { id: 1, what: 'Kiss setting locked', action: 'lock', author: 'Tove', at: '2026-10-23T08:00:00.000Z' },
    ],
    ...change,
  };
}
const draw = (of: SettingPageData) => renderToStaticMarkup(<SettingView page={of} system="metric" />);

describe('the page of a setting', () => {
  it.each(OPERATIONS)('shows the fields of %s, each with a label of its own', (operation) => {
    const markup = draw(page(operation, { bench: operation === 'kiss' ? sampleAnswer() : null }));
    const ids = [...markup.matchAll(/id="(value-[A-Za-z]+)"/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const id of ids) expect(markup).toContain(`for="${id}"`);
    expect(ids.includes('value-tabForce')).toBe(operation === 'perforated');
    expect(ids.includes('value-tool')).toBe(operation === 'crease');
    expect(ids.includes('value-depthShare')).toBe(operation === 'score');
    expect(ids.includes('value-strategy')).toBe(operation === 'through');
  });

  it('says where values came from, what the machine can do, and what every revision changed', () => {
    const said = words(draw(page()));
    expect(said).toMatch(/10 to 500 · from test cuts/);
    expect(said).toMatch(
      /Revision 2 .*gulls lift clean.*lot 26-B.*force: 98 gf.*106 gf.*Revision 1 .*first try/,
    );
    expect(said).toContain('Tove: Kiss setting locked');
  });

  it('shows the tab force as the kiss force that cannot be typed, and none where tabs are left whole', () => {
    const markup = draw(page('perforated', { bench: null }));
    expect(markup).toMatch(/<output id="value-tabForce"[^>]*>106</);
    expect(words(markup)).toContain('the kiss force, kept in step');
    const whole = draw(page('perforated', { bench: null, kissForce: null }));
    expect(whole).toMatch(/<output id="value-tabForce"[^>]*>none</);
    expect(words(whole)).toContain('the tip is lifted over them');
  });

  it('closes every field while it is locked, and says by whom', () => {
    const markup = draw(page('kiss', { summary: sampleSetting({ lockedBy: 'Ines' }) }));
    expect(markup).toMatch(/<fieldset disabled=""/);
    expect(words(markup)).toMatch(/Unlock \(Ines locked it\)/);
    expect(markup).not.toContain('>Restore<');
  });

  it('says what another machine would be set to, and how sure that is', () => {
    expect(words(draw(page()))).toMatch(
      /106 gf here cuts like level 9 there, probably between \d+ and \d+.*never measured/,
    );
    expect(words(draw(page('kiss', { machines: [sampleMachine] })))).toContain('no other machine');
  });

  it('offers no exposure for a crease, and a first revision where none is kept', () => {
    expect(words(draw(page('crease', { bench: null })))).not.toContain('Exposure, by how one sets it');
    const fresh = words(draw(page('kiss', { summary: null, revisions: [], audit: [] })));
    expect(fresh).toMatch(/not kept yet.*Keep the first revision.*What you keep first becomes revision 1/);
  });
});

describe('values in words', () => {
  it.each([
    ['force', 90, '90 gf'],
    ['speed', 200, '200 mm/s'],
    ['exposureMm', 0.375, '0.375 mm'],
    ['passes', 2, '2'],
    ['depthShare', 0.5, '0.5 of 1'],
    ['strategy', 'severalLight', 'several light passes'],
    ['tool', 'ball 1.5 mm', 'ball 1.5 mm'],
    ['tabForce', undefined, 'not said'],
  ] as const)('%s %j is "%s"', (field, value, said) => {
    expect(describeValue(field, value, sampleMachine)).toBe(said);
  });

  it('carry the unit of the machine', () => {
    expect(unitOf('force', desk)).toBe('level');
    expect(unitOf('tool', desk)).toBe('');
  });
});

describe('a new setting', () => {
  it('offers only what the machine at hand can do', () => {
    const markup = renderToStaticMarkup(
      <NewSettingForm
        materials={[{ conditionId: 10, name: 'Herringglass matt · Oldstrand' }]}
        machines={[{ id: 2, name: 'Gannet 600', operations: ['kiss', 'through'] }]}
        bladeKinds={['45° fine']}
        machineId={2}
        bladeKind={null}
        conditionId={10}
      />,
    );
    expect(markup).toMatch(/<option value="kiss">/);
    expect(markup).not.toMatch(/<option value="crease">/);
    expect(markup).toMatch(/name="bladeKind"[^>]*value="45° fine"/);
  });
});

describe('side by side', () => {
  const column = (change: Partial<ComparedSetting> = {}): ComparedSetting => ({
    setting: sampleSetting(),
    machine: sampleMachine,
    stack: sampleMaterial.conditions[0]!.stack,
    angleDeg: 45,
    faceColour: '#ffffff',
    family: 'printableVinyl',
    price: '0.92 EUR a sheet',
    bench: sampleAnswer(),
    ...change,
  });
  const draw = (columns: readonly ComparedSetting[]) =>
    renderToStaticMarkup(<CompareView columns={columns} system="metric" />);

  it('marks what differs, in words for who cannot see the colour, and leaves the same unmarked', () => {
    const other = column({
      setting: sampleSetting({ id: 8, bladeKind: '60° deep' }),
      machine: desk,
      price: '',
    });
    const markup = draw([column(), other]);
    expect(words(markup)).toMatch(/106 gf.*level 106 \(1276 gf\)/);
    expect(markup).toMatch(/price<span aria-label="differs">/);
    expect(markup).not.toMatch(/passes<span aria-label="differs">/);
    expect(words(markup)).toContain('not said');
  });

  it('draws windows on one axis, and none where the model does not know the cut', () => {
    const crease = column({ setting: sampleSetting({ id: 9, operation: 'crease' }), bench: null });
    expect(words(draw([column(), crease]))).toContain('no test cuts for this');
    expect((draw([column(), crease]).match(/Force window for/g) ?? []).length).toBe(1);
  });

  it('says where to choose when nothing is chosen', () => {
    expect(words(draw([]))).toMatch(/Nothing to compare yet.*Tick two or more/);
  });
});
