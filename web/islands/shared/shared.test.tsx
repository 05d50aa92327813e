import { renderToStaticMarkup } from 'react-dom/server';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Material } from '#core/stack/material.ts';
import { matchMaterials } from '#web/islands/materialSearch/useMaterialSearch.ts';
import { ApiRefusal, callApi } from '#web/islands/shared/callApi.ts';
import { formatDay, formatDuration, formatMoment } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';

describe('callApi', () => {
  afterEach(() => vi.unstubAllGlobals());
  const answerWith = (response: Response | Error) =>
    vi.stubGlobal('fetch', () =>
      response instanceof Error ? Promise.reject(response) : Promise.resolve(response),
    );

  it('gives the reply, or the refusal in the words of the server', async () => {
    answerWith(Response.json({ id: 3 }));
    expect(await callApi('/x')).toEqual({ id: 3 });
    answerWith(
      Response.json({ error: { code: 'conflict', title: 'Changed', message: 'by Ines' } }, { status: 409 }),
    );
    await expect(callApi('/x')).rejects.toMatchObject({
      code: 'conflict',
      title: 'Changed',
      message: 'by Ines',
    });
  });

  it('has words for a broken answer and for no answer at all', async () => {
    answerWith(new Response('<html>', { status: 502 }));
    await expect(callApi('/x')).rejects.toMatchObject({ code: 'unforeseen', message: /status 502/ });
    answerWith(new TypeError('failed to fetch'));
    await expect(callApi('/x', 'POST', {})).rejects.toMatchObject({
      code: 'unreachable',
      message: /still here/,
    });
  });
});

describe('times', () => {
  it.each([
    [7.4, '7 s'],
    [83, '1 min 23 s'],
    [3600 * 2 + 61, '2 h 1 min'],
  ])('%d seconds are %s', (seconds, words) => expect(formatDuration(seconds)).toBe(words));

  it('are days and moments in UTC, the same on server and screen', () => {
    expect(formatDay('2026-11-12T23:30:00.000Z')).toBe('12 Nov');
    expect(formatMoment('2026-11-12T23:30:00.000Z')).toBe('12 Nov, 23:30');
  });
});

describe('matchMaterials', () => {
  const stack = [{ role: 'face', caliperUm: 80, isMeasured: true }] as const;
  const material = (name: string, maker: string, family: Material['family']): Material => ({
    id: 1,
    name,
    maker,
    family,
    finish: 'matt',
    colourName: 'navy',
    colourHex: '#000000',
    darkness: 0,
    cautions: [],
    conditions: [
      { id: 1, kind: 'bare', stack },
      { id: 2, kind: 'laminated', stack },
    ],
  });
  const shelf = [
    material('Mooring', 'Oldstrand', 'plainVinyl'),
    material('Drift', 'Skerry Mills', 'stickerPaper'),
  ];

  it('finds by every word typed, in any order and case, over all that the pack says', () => {
    const names = (text: string) =>
      matchMaterials(shelf, text).map((hit) => `${hit.material.name} ${hit.condition.kind}`);
    expect(names('NAVY oldstr lamin')).toEqual(['Mooring laminated']);
    expect(names('label paper')).toEqual(['Drift bare', 'Drift laminated']);
    expect(names('')).toHaveLength(4);
    expect(names('navy nothing')).toEqual([]);
  });
});

describe('small views', () => {
  it('say why something was refused, and nothing when nothing was', () => {
    const markup = renderToStaticMarkup(
      <Refusal error={new ApiRefusal('conflict', 'Changed meanwhile', 'by Ines')} />,
    );
    expect(markup).toContain('role="alert"');
    expect(markup).toContain('<strong>Changed meanwhile.</strong> by Ines');
    expect(renderToStaticMarkup(<Refusal error={null} />)).toBe('');
    expect(renderToStaticMarkup(<Refusal error={new Error('odd')} />)).toContain('odd');
  });

  it('show a state by word and mark, never by colour alone', () => {
    const looks = (['predicted', 'tried', 'proven', 'doubted'] as const).map((state) =>
      renderToStaticMarkup(<StateBadge state={state} />),
    );
    looks.forEach((markup) => expect(markup).toContain('<svg'));
    expect(new Set(looks.map((markup) => /<svg.*<\/svg>/.exec(markup)![0])).size).toBe(4);
    expect(looks[3]).toContain('doubted');
  });
});
