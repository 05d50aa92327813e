import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { axisTicks, shareOnAxis } from '#web/components/windowStrip/axisTicks.ts';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';

const grams = { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 } as const;
const levels = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 } as const;
const axis = { fromGf: 40, toGf: 250 };

describe('axisTicks', () => {
  it('labels round settable values inside the axis, far enough apart to be read', () => {
    for (const [scale, range] of [
      [grams, axis],
      [grams, { fromGf: 12, toGf: 480 }],
      [levels, { fromGf: 16, toGf: 400 }],
      [levels, { fromGf: 40, toGf: 180 }],
    ] as const) {
      const ticks = axisTicks(scale, range);
      expect(ticks.length).toBeGreaterThanOrEqual(4);
      for (let index = 1; index < ticks.length; index++) {
        expect(ticks[index]!.share - ticks[index - 1]!.share).toBeGreaterThanOrEqual(0.085);
      }
      for (const { label } of ticks) expect(Number(label) % scale.step).toBe(0);
    }
  });

  it('places equal ratios at equal distances and holds the rest at the ends', () => {
    expect(shareOnAxis(100, { fromGf: 10, toGf: 1000 })).toBeCloseTo(0.5, 12);
    expect(shareOnAxis(1, axis)).toBe(0);
    expect(shareOnAxis(9999, axis)).toBe(1);
  });
});

describe('WindowStrip', () => {
  const outlooks = [40, 80, 120, 250].map((forceGf, index) => {
    const right = [0, 0.9, 0.8, 0][index]!;
    return { forceGf, under: index < 2 ? 1 - right : 0, right, over: index < 2 ? 0 : 1 - right };
  });
  const cuts = [
    { id: 1, force: 60, forceGf: 60, grade: 1 },
    { id: 2, force: 95, forceGf: 95, grade: 3 },
    { id: 3, force: 180, forceGf: 180, grade: 6 },
  ] as const;
  const strip = (operation: 'kiss' | 'through') =>
    renderToStaticMarkup(
      <WindowStrip
        operation={operation}
        scale={grams}
        axis={axis}
        outlooks={outlooks}
        cuts={cuts}
        force={95}
        forceWords="95 gf"
      />,
    );

  it('says in words which force and which test cuts it shows', () => {
    expect(strip('kiss')).toContain(
      'Force window for kiss. 95 gf: 95 gf. Test cuts: 60 gf partial, 95 gf clean, 180 gf breached.',
    );
  });

  it('marks cuts by shape as well as colour: ring under, disc right, cross over', () => {
    const kiss = strip('kiss');
    expect(kiss.match(/<circle r="5"/g)).toHaveLength(1);
    expect(kiss.match(/<circle r="6"/g)).toHaveLength(1);
    expect(kiss.match(/M-5-5 5 5M-5 5 5-5/g)).toHaveLength(1);
    expect(strip('through').match(/<circle r="5"/g)).toHaveLength(3);
  });

  it('fills each side as strongly as its chance', () => {
    const gradient = /<linearGradient[^>]*rightg">(.*?)<\/linearGradient>/.exec(strip('kiss'))![1]!;
    expect([...gradient.matchAll(/stop-opacity="([\d.]+)"/g)].map((match) => Number(match[1]))).toEqual([
      0, 0.9, 0.8, 0,
    ]);
  });

  it('leaves out a tick that the feather would hide', () => {
    const labels = [...strip('kiss').matchAll(/figure text-\[13px\]"[^>]*>(\d+)</g)].map((match) =>
      Number(match[1]),
    );
    expect(labels).not.toContain(100);
    expect(labels.length).toBeGreaterThan(3);
  });
});
