import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import { planMachineOf } from '#core/protocol/planMachineOf.ts';
import type { MachineLanguage } from '#core/protocol/machineLanguage.ts';
import { at, UnwatchedRuns } from '#e2e/support/unwatchedRuns.ts';
import { stopRun } from '#server/runs/runOrders.ts';
import { findMachine } from '#store/repositories/book/machines.ts';
import { machineFormSchema } from '#web/schemas/station.ts';
import { machine } from '#store/tests/testStore.ts';

/** A third language is one folder (`core/tests/toyLanguage`) and one line in a list: this one. */
vi.mock('#core/protocol/languages.ts', async (original) => {
  const { LANGUAGES } = await original<{ LANGUAGES: readonly MachineLanguage[] }>();
  const { toy } = await import('#core/tests/toyLanguage/toy.ts');
  return { LANGUAGES: [...LANGUAGES, toy] };
});

let runs: UnwatchedRuns;
beforeAll(async () => {
  runs = await UnwatchedRuns.begin();
});
afterAll(() => runs.db.destroy());
afterEach(() => runs.tidy());

const file = {
  language: { id: 'toy', options: { please: true } },
  carries: { force: true, speed: false },
  mmPerSPerUnit: 1,
};

describe('a language that nobody knew', () => {
  it('writes files, is offered to forms with its own words, and tells plans what it can', () => {
    const passes = [
      {
        values: { force: 9, speed: 1 },
        strokes: [
          {
            points: [
              { x: 1, y: 2 },
              { x: 3, y: 4 },
            ],
            isTab: false,
          },
        ],
      },
    ];
    expect(writeMachineFile(passes, 10, file)).toBe('please press 9\nplease draw 1 8 3 6\nplease rest\n');
    const given = { ...machine, language: { id: 'toy', options: { please: 'perhaps' } } };
    expect(machineFormSchema.safeParse(given).error?.issues[0]).toMatchObject({
      path: ['language', 'options', 'please'],
    });
    const plan = planMachineOf({ ...machine, language: file.language, id: 1 } as never);
    expect(plan).toMatchObject({
      carries: { force: true, speed: false },
      choosesSeats: false,
      perforation: 'drawn',
    });
  });

  it('drives a run to its end, acknowledged by the machine in its own words, and stops it', async () => {
    const polite = await runs.odd((socket) =>
      socket.on('data', (bytes) => {
        for (const line of String(bytes).split('\n')) if (line) socket.write('thanks\n');
      }),
    );
    const { runId, strokes } = await runs.start(at(polite.port), file, 3);
    const { run } = await runs.until(runId, 'looking');
    expect(run.outcomes).toHaveLength(strokes.length);
    expect(polite.received().match(/draw/g)).toHaveLength(strokes.length);
    expect((await findMachine(runs.db, run.machineId)).language).toEqual(file.language);
    let answers = 0;
    const slow = await runs.odd((socket) =>
      socket.on('data', (bytes) => {
        if (String(bytes).includes('#')) socket.write('halted, thanks\n');
        else if ((answers += 1) < 3) socket.write('thanks\n');
      }),
    );
    const second = await runs.start(at(slow.port), file, 3);
    await expect.poll(() => slow.received()).toContain('draw');
    expect(await stopRun(second.runId, runs.context)).toBe('stopped');
    expect(slow.received()).toContain('#');
  });
});
