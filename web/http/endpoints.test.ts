import { beforeAll, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { AppError, type ErrorCode } from '#core/errors/appError.ts';
import { describeApi } from '#web/http/describeApi.ts';
import { ERROR_TABLE } from '#web/http/errorTable.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';
import { readJson } from '#web/http/readJson.ts';
import { replyToError } from '#web/http/replyToError.ts';
import { streamRun } from '#web/endpoints/runs/streamRun.ts';
import { publishRunEvent, watchRun } from '#server/runs/runHub.ts';
import { newMachineSchema, newMaterialSchema, type MachineInput } from '#web/schemas/station.ts';
import type { Run } from '#core/run/run.ts';

vi.mock('#server/serverContext.ts', () => ({ serverContext: () => ({ log: { error: () => undefined } }) }));

interface Refused {
  readonly error: { readonly code: string; readonly title: string; readonly message: string };
}

const bodyOf = async (response: Response) => (await response.json()) as Refused;

describe('replyToError', () => {
  it('gives every refusal its status, title and own words', async () => {
    for (const [code, { status, title }] of Object.entries(ERROR_TABLE)) {
      const response = replyToError(new AppError(code as ErrorCode, 'in words'));
      expect(response.status).toBe(status);
      expect(await bodyOf(response)).toMatchObject({ error: { code, title, message: 'in words' } });
    }
  });

  it('names the fields of a request that does not fit, and hides what it did not foresee', async () => {
    const { error } = z.object({ name: z.string() }).safeParse({ name: 3 });
    expect((await bodyOf(replyToError(error))).error.message).toMatch(/^name: /);
    const odd = replyToError(new Error('secret path'));
    expect(odd.status).toBe(500);
    expect(JSON.stringify(await bodyOf(odd))).not.toContain('secret');
    const gone = replyToError(Object.assign(new Error('x'), { code: 'ECONNREFUSED' }));
    expect(gone.status).toBe(503);
    expect(gone.headers.get('retry-after')).toBe('2');
    const full = replyToError(Object.assign(new Error('x'), { code: 'ER_DISK_FULL' }));
    expect([full.status, (await bodyOf(full)).error.message]).toEqual([
      503,
      expect.stringMatching(/disk.*full/),
    ]);
    const taken = Object.assign(new Error('operation timed out'), { name: 'KnexTimeoutError' });
    expect(replyToError(taken).status).toBe(503);
    const unfit = replyToError(
      Object.assign(new Error('x'), { errno: 1452, code: 'ER_NO_REFERENCED_ROW_2' }),
    );
    expect(unfit.status).toBe(404);
    const moved = await bodyOf(replyToError(new Error('in the midst'), false));
    expect(moved.error.message).not.toMatch(/Nothing was changed/);
  });
});

describe('readJson', () => {
  const request = (body: string, headers = {}) => new Request('http://x/', { method: 'POST', body, headers });

  it('reads up to its limit and refuses one byte more, declared or not', async () => {
    expect(await readJson(request('{"a":1}'), 7)).toMatchObject({ value: { a: 1 } });
    await expect(readJson(request('{"a":12}'), 7)).rejects.toMatchObject({ code: 'tooLarge' });
    await expect(readJson(request('{}', { 'content-length': '99' }), 7)).rejects.toMatchObject({
      code: 'tooLarge',
    });
  });

  it('refuses what is no JSON, and nothing at all', async () => {
    await expect(readJson(request('{'), 99)).rejects.toMatchObject({ code: 'badInput' });
    await expect(readJson(new Request('http://x/', { method: 'POST' }), 99)).rejects.toMatchObject({
      code: 'badInput',
    });
  });
});

describe('the description', () => {
  it('holds every endpoint once, with its words, and a refusal for each', () => {
    const { paths } = describeApi();
    const keys = ENDPOINTS.map(({ method, path }) => `${method} ${path}`);
    expect(new Set(keys).size).toBe(keys.length);
    for (const { method, path, summary } of ENDPOINTS) {
      const described = (paths?.[path] as Record<string, { summary: string; responses: object }>)[
        method.toLowerCase()
      ]!;
      expect(described.summary).toBe(summary);
      expect(described.responses).toHaveProperty('default');
    }
  });
});

describe('a stream of a run', () => {
  const run = { id: 77, state: 'cutting', message: '' } as Run;

  it('starts with the state now, tells what happens, ends with the run, and is watched no longer', async () => {
    const response = await streamRun(run.id, () => Promise.resolve(run));
    const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
    publishRunEvent(77, { kind: 'position', x: 1, y: 2, stroke: 0 });
    publishRunEvent(78, { kind: 'position', x: 9, y: 9, stroke: 0 });
    publishRunEvent(77, { kind: 'state', state: 'done', message: '' });
    publishRunEvent(77, { kind: 'position', x: 8, y: 8, stroke: 0 });
    let text = '';
    for (let part = await reader.read(); !part.done; part = await reader.read()) text += part.value;
    const events = [...text.matchAll(/data: (.*)\n/g)].map(
      (match) => JSON.parse(match[1]!) as { kind: string },
    );
    expect(events.map((event) => event.kind)).toEqual(['state', 'position', 'state']);
  });

  it('loses nothing that happens while the run is read, and says it after what was read', async () => {
    const response = await streamRun(run.id, () => {
      publishRunEvent(77, { kind: 'state', state: 'waiting', message: 'turn the blade' });
      return Promise.resolve(run);
    });
    publishRunEvent(77, { kind: 'state', state: 'done', message: '' });
    const states = [...(await response.text()).matchAll(/"state":"(\w+)"/g)].map((match) => match[1]);
    expect(states).toEqual(['cutting', 'waiting', 'done']);
  });

  it('of a run that cannot be read is refused', async () => {
    await expect(streamRun(79, () => Promise.reject(new Error('no such run')))).rejects.toThrow(
      'no such run',
    );
  });

  it('of one that is over ends at once', async () => {
    const over: Run = { ...run, state: 'failed', message: 'jam' };
    const response = await streamRun(run.id, () => Promise.resolve(over));
    const text = await response.text();
    expect(text).toContain('"message":"jam"');
  });

  it('reaches every watcher until it looks away', () => {
    const seen: string[] = [];
    const stopFirst = watchRun(5, () => seen.push('first'));
    watchRun(5, () => seen.push('second'));
    publishRunEvent(5, { kind: 'state', state: 'cutting', message: '' });
    stopFirst();
    publishRunEvent(5, { kind: 'state', state: 'done', message: '' });
    expect(seen).toEqual(['first', 'second', 'second']);
  });
});

describe('what may be entered', () => {
  let machine: Omit<MachineInput, 'language'>;
  beforeAll(() => {
    machine = {
      name: 'Skua',
      kind: 'rollFed',
      bedWidthMm: 300,
      bedLengthMm: 500,
      marginMm: 5,
      forceScale: { kind: 'gramForce', min: 10, max: 400, step: 1, gfAtZero: 0, gfPerUnit: 1 },
      speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
      depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
      accelerationMmPerS2: 2000,
      travelSpeedMmPerS: 300,
      numbersOwner: 'file',
      hpglUnitsPerMm: 40,
      link: { kind: 'none' },
    };
  });
  const problems = (change: object) =>
    newMachineSchema
      .safeParse({ ...machine, ...change })
      .error?.issues.map((issue) => issue.message)
      .join('; ') ?? '';

  it('is a machine whose scales can be', () => {
    expect(problems({})).toBe('');
    expect(problems({ forceScale: { ...machine.forceScale, max: 5 } })).toMatch(
      /highest force must be above/,
    );
    expect(problems({ forceScale: { ...machine.forceScale, step: 0.01 } })).toMatch(/coarser step/);
    expect(problems({ forceScale: { ...machine.forceScale, gfAtZero: -50 } })).toMatch(/above 0 gf/);
    expect(problems({ speedScale: { ...machine.speedScale, max: 10 } })).toMatch(/highest speed/);
    expect(problems({ name: '  ' })).toMatch(/is missing/);
    expect(problems({ link: { kind: 'address', host: 'cutter', port: 99_999 } })).not.toBe('');
    expect(problems({ link: { kind: 'device', path: '/etc/passwd' } })).toMatch(
      /printer device or a serial line/,
    );
    for (const path of ['/dev/sda', '/dev/../etc/passwd', '/dev/mem', '/dev/tty/../sda']) {
      expect(problems({ link: { kind: 'device', path } }), path).not.toBe('');
    }
    for (const path of ['/dev/usb/lp0', '/dev/ttyACM0', '/dev/serial/by-id/usb-1a86_USB-if00-port0']) {
      expect(problems({ link: { kind: 'device', path } }), path).toBe('');
    }
    expect(problems({ language: { id: 'morse' } })).toBe('no such machine language');
    expect(problems({ language: { id: 'gcode', options: { settleSeconds: -1 } } })).not.toBe('');
    expect(problems({ language: { id: 'gcode' } })).toBe('');
  });

  it('is a material with calipers that can be measured', () => {
    const material = { name: 'a', maker: 'b', family: 'plainVinyl', colourHex: '#ffffff', darkness: 0 };
    const parse = (stack: object[]) => newMaterialSchema.safeParse({ ...material, stack });
    expect(parse([{ role: 'face', caliperUm: 80, isMeasured: true }]).success).toBe(true);
    expect(parse([]).success).toBe(false);
    expect(parse([{ role: 'face', caliperUm: Number.NaN, isMeasured: true }]).success).toBe(false);
    expect(parse([{ role: 'roof', caliperUm: 80, isMeasured: true }]).success).toBe(false);
  });
});
