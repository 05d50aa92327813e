import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { FittedScale } from '#core/units/fitForceScale.ts';
import { ExposureDial } from '#web/components/exposureDial/ExposureDial.tsx';
import { CalibrationPlot } from '#web/islands/machinePage/CalibrationPlot.tsx';
import { KeptList } from '#web/islands/materialPage/KeptList.tsx';
import { startOf } from '#web/islands/materialPage/useMaterialPage.ts';
import { sampleBlade, sampleMachine, sampleMaterial, sampleSetting } from '#web/tests/sampleBook.ts';
import { BladeList } from '#web/islands/tools/BladeList.tsx';
import { MatList, type MatView } from '#web/islands/tools/MatList.tsx';
import { materialChangeSchema } from '#web/schemas/station.ts';

const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const mat: MatView = {
  id: 1,
  number: 3,
  tack: 'standard',
  uses: 31,
  widthMm: 305,
  heightMm: 305,
  usesAtRestick: 0,
  usesAtCleaning: 22,
  firstUsedAt: null,
  hasGrooves: false,
  isForFineWork: false,
  retiredAt: null,
  tackIndex: 41,
  usesSinceCleaned: 9,
  judged: {
    advice: 'wash',
    reason: 'lint takes 9 of its tack',
    loadsLeft: { low: 22, high: 51 },
    changes: 1,
  } as const,
  suits: ['stickerPaper', 'plainVinyl'],
};

describe('blades', () => {
  const draw = (blades = [sampleBlade]) =>
    words(
      renderToStaticMarkup(
        <BladeList
          blades={blades}
          machines={[{ id: 2, name: 'Gannet 600' }]}
          care={{
            'blade-3': [
              { what: 'Blade no. 7 cleaned at 205 m', author: 'Ines', at: '2026-11-15T09:30:00.000Z' },
            ],
          }}
        />,
      ),
    );

  it('say where each is, how worn, what it is and what was done to it', () => {
    expect(draw()).toMatch(/No\. 7, 45° fine Gannet 600 205 of ~360 m/);
    expect(draw()).toMatch(/45° · offset 0\.25 mm · reaches 0\.9 mm · roll holder/);
    expect(draw()).toMatch(/1 entry.*Blade no\. 7 cleaned at 205 m/);
  });

  it('fold retired ones away and offer to bring them back', () => {
    const retired = { ...sampleBlade, fittedTo: null, retiredAt: '2026-11-20T09:00:00.000Z' };
    expect(draw([retired])).toMatch(/1 retired No\. 7, 45° fine retired.*Bring back/);
    expect(draw([{ ...sampleBlade, fittedTo: null }])).toContain('on the shelf');
  });
});

describe('mats', () => {
  const draw = (one: MatView) => words(renderToStaticMarkup(<MatList mats={[one]} care={{}} />));

  it('say how well each holds, and what', () => {
    expect(draw(mat)).toMatch(/No\. 3, standard 305 × 305 mm · 31 loads, 9 since washed tack 41/);
    expect(draw(mat)).toContain('holds sticker and label paper, plain adhesive vinyl');
    expect(draw(mat)).toMatch(/22 to 51 loads left, 8 times in 10 \(learnt from 1 mat given up here\)/);
    expect(draw({ ...mat, suits: [] })).toContain('holds nothing well any more');
  });

  it('warn of grooves in a mat that is kept for fine work', () => {
    expect(draw({ ...mat, hasGrooves: true, isForFineWork: true })).toContain(
      'Deep grooves do not go with fine work',
    );
    expect(draw({ ...mat, usesAtRestick: 20 })).toContain('re-stuck after 20');
  });
});

describe('the knob and the dial', () => {
  const draw = (exposureMm: number, scale: Parameters<typeof ExposureDial>[0]['scale']) =>
    renderToStaticMarkup(<ExposureDial exposureMm={exposureMm} scale={scale} />);
  const turns = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 2 } as const;

  it('turn as far as the words beside them say', () => {
    expect(draw(0.375, turns)).toContain('aria-label="¾ turn from flush"');
    // Three quarters from the top, clockwise, point left: x is the middle less the radius, y the middle.
    expect(draw(0.375, turns)).toMatch(/x2="9" y2="28"/);
    expect(draw(0.75, turns)).toMatch(/>\+(<!-- -->)?1</);
    expect(draw(0.5, turns)).not.toContain('<path');
  });

  it('show a dial at its figure, and nothing where the tip is measured', () => {
    const dial = draw(0.3, { kind: 'dial', mmPerStep: 0.1, maxMm: 1 });
    expect(dial).toContain('aria-label="dial 3"');
    expect(dial.match(/<line/g)).toHaveLength(11);
    expect(draw(0.3, { kind: 'millimetres', stepMm: 0.05, maxMm: 1 })).toBe('');
  });
});

describe('the plot of a measured scale', () => {
  it('has a name, and explains its marks in words', () => {
    const fitted: FittedScale = {
      noiseG: 2,
      points: [1, 12, 33].map((force) => ({
        force,
        gf: 10 * force,
        lowGf: 10 * force - 3,
        highGf: 10 * force + 3,
      })),
    };
    const attempt = { kind: 'fitted', fitted, readings: [{ force: 12, grams: 121 }] } as const;
    const markup = renderToStaticMarkup(
      <CalibrationPlot attempt={attempt} scale={sampleMachine.forceScale} />,
    );
    expect(markup).toContain('aria-label="Grams at each force"');
    expect(words(markup)).toMatch(/dots: readings .* dashed: what the scale is said to mean/);
  });
});

describe('a material as a form', () => {
  it('begins as what the server takes back, whatever is known of it', () => {
    const start = startOf(sampleMaterial);
    expect(materialChangeSchema.parse(start)).toMatchObject({ name: sampleMaterial.name, version: 3 });
    expect(start.conditions.map(({ id }) => id)).toEqual([10, 11]);
  });

  it('refuses two lots of one code, two states of a kind, and forces beyond reason', () => {
    const lot = {
      code: 'A',
      receivedOn: '',
      storage: '',
      humidityPercent: null,
      forcePercent: 0,
      note: '',
      isArchived: false,
    };
    const start = startOf(sampleMaterial);
    const problems = (change: object) =>
      materialChangeSchema.safeParse({ ...start, ...change }).error?.issues.map(({ message }) => message) ??
      [];
    expect(problems({ details: { ...start.details, lots: [lot, lot] } })).toEqual([
      'two lots have the same code',
    ]);
    expect(problems({ details: { ...start.details, lots: [{ ...lot, forcePercent: 900 }] } })).toEqual([
      'at most 100 %',
    ]);
    expect(problems({ details: { ...start.details, lots: [{ ...lot, receivedOn: 'soon' }] } })[0]).toMatch(
      /date/i,
    );
    expect(problems({ conditions: [start.conditions[0], start.conditions[0]] })).toEqual([
      'two states are of the same kind',
    ]);
  });

  it('lists what is kept of it, each a way to its page', () => {
    const markup = renderToStaticMarkup(
      <KeptList
        materialId={4}
        settings={[sampleSetting(), sampleSetting({ id: 8, operation: 'through' })]}
        materialName="Herringglass matt"
      />,
    );
    expect(markup).toContain('href="/settings/8"');
    expect(markup).toContain('href="/compare?ids=7,8"');
    expect(markup).toContain('href="/materials/4/code"');
    expect(words(renderToStaticMarkup(<KeptList materialId={4} settings={[]} materialName="x" />))).toContain(
      'None yet.',
    );
  });
});
