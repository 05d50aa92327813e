import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { Layer } from '#core/stack/layer.ts';
import { GradePicture } from '#web/components/gradePicture/GradePicture.tsx';
import { layOutSection } from '#web/components/section/layOutSection.ts';
import { Section } from '#web/components/section/Section.tsx';

const layer = (role: Layer['role'], caliperUm: number, isMeasured = true): Layer => ({
  role,
  caliperUm,
  isMeasured,
});
const vinyl = [
  layer('laminate', 40),
  layer('ink', 6),
  layer('face', 80),
  layer('adhesive', 25),
  layer('liner', 140, false),
];
const cut = { tip: { lowUm: 150, middleUm: 168, highUm: 182 }, angleDeg: 45 };
const draw = (changes: Partial<Parameters<typeof Section>[0]> = {}) =>
  renderToStaticMarkup(
    <Section stack={vinyl} faceColour="#f3c9b4" system="metric" on="matFed" cut={cut} {...changes} />,
  );

describe('layOutSection', () => {
  it('draws every layer to one scale, touching the next', () => {
    const { layers, pxPerUm, topY, bottomY } = layOutSection(vinyl);
    let y = topY;
    for (const placed of layers) {
      expect(placed.y).toBeCloseTo(y, 9);
      expect(placed.height / placed.layer.caliperUm).toBeCloseTo(pxPerUm, 9);
      y += placed.height;
    }
    expect(bottomY).toBeCloseTo(y, 9);
  });

  it('keeps labels apart, however thin the layers are', () => {
    const thin = [layer('laminate', 2), layer('ink', 1), layer('face', 500)];
    const { layers } = layOutSection(thin);
    for (let index = 1; index < layers.length; index++) {
      expect(layers[index]!.labelY - layers[index - 1]!.labelY).toBeGreaterThanOrEqual(19 - 1e-9);
    }
  });
});

describe('Section', () => {
  it('says in words what it draws, for those who do not see it', () => {
    expect(draw()).toContain(
      'Section from the top: laminate 40 µm, ink 6 µm, face 80 µm, adhesive 25 µm, liner 140 µm.' +
        ' The tip probably ends 168 µm below the surface.',
    );
  });

  it('tells layers by pattern, names what lies below, and marks what is only assumed', () => {
    const markup = draw();
    for (const role of ['laminate', 'face', 'adhesive', 'liner'])
      expect(markup).toMatch(new RegExp(`url\\(#\\w+${role}\\)`));
    expect(markup).toContain('liner ~');
    expect(markup).toContain('>mat<');
    expect(draw({ on: 'rollFed' })).toContain('>cutting strip<');
  });

  it('counts in mil when asked', () => {
    expect(draw({ system: 'inch' })).toContain('face 3.1 mil');
    expect(draw({ system: 'inch' })).toContain('6.6 mil');
  });

  it('draws the stack alone without a cut', () => {
    const markup = draw({ cut: null });
    expect(markup).not.toContain('holder');
    expect(markup).not.toContain('probably');
  });

  it('raises the edge of the blade at its own angle', () => {
    const slope = (angleDeg: number) => {
      const path = /d="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)" stroke-width="2.4"/.exec(
        draw({ cut: { ...cut, angleDeg } }),
      )!;
      const [, x1, y1, x2, y2] = path.map(Number) as [number, number, number, number, number];
      return (Math.atan2(y1 - y2, x2 - x1) * 180) / Math.PI;
    };
    expect(slope(45)).toBeCloseTo(45, 6);
    expect(slope(60)).toBeCloseTo(60, 6);
  });
});

describe('GradePicture', () => {
  it('draws another picture for every grade, on both kinds of sheet', () => {
    const layered = ([0, 1, 2, 3, 4, 5, 6, 7, 8] as const).map((grade) =>
      renderToStaticMarkup(<GradePicture grade={grade} isLayered />),
    );
    expect(new Set(layered).size).toBe(9);
    const single = ([0, 1, 2, 7, 8] as const).map((grade) =>
      renderToStaticMarkup(<GradePicture grade={grade} isLayered={false} />),
    );
    expect(new Set(single).size).toBe(5);
  });
});
