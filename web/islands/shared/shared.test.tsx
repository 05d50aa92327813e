import { renderToStaticMarkup } from 'react-dom/server';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { offersOf } from '#web/islands/materialSearch/offersOf.ts';
import type { LookupHit } from '#web/schemas/lookup.ts';
import { ApiRefusal, callApi } from '#web/islands/shared/callApi.ts';
import { formatDay, formatDuration, formatEnd, formatMoment } from '#web/islands/shared/formatTime.ts';
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

  it('end at a time, with the day where it is not today', () => {
    const end = '2026-11-12T23:30:00.000Z';
    expect(formatEnd(end, new Date('2026-11-12T09:00:00Z'))).toBe('23:30');
    expect(formatEnd(end, new Date('2026-11-11T23:45:00Z'))).toBe('12 Nov, 23:30');
  });
});

describe('offersOf', () => {
  const answer = {
    settingId: 7,
    operation: 'kiss',
    state: 'proven',
    bladeKind: '45° fine',
    force: 92,
  } as const;
  const hit: LookupHit = {
    materialId: 1,
    name: 'Mooring vinyl',
    maker: 'Oldstrand',
    family: 'plainVinyl',
    colourHex: '#000000',
    met: [],
    missed: [],
    isStateAsked: true,
    states: [
      { conditionId: 4, kind: 'bare', answers: [answer] },
      { conditionId: 5, kind: 'laminated', answers: [] },
    ],
  };

  it('asks for the state only where it changes the answer', () => {
    expect(offersOf([hit]).map(({ name }) => name)).toEqual(['Mooring vinyl', 'Mooring vinyl, laminated']);
    expect(offersOf([{ ...hit, isStateAsked: false }]).map(({ conditionId }) => conditionId)).toEqual([4]);
  });

  it('takes a named state, lot or colour at its word', () => {
    const met = [
      { typed: 'lamin', term: 'laminated', field: 'state' as const },
      { typed: '26b', term: '26b', field: 'lot' as const },
    ];
    const [only, ...others] = offersOf([{ ...hit, met }]);
    expect(only).toMatchObject({ conditionId: 5, why: 'state “laminated”, lot “26b”' });
    expect(others).toEqual([]);
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
