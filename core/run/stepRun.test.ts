import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isRunOver } from '#core/run/run.ts';
import type { RunCommand, RunCourse, RunEvent } from '#core/run/runCourse.ts';
import { stepRun } from '#core/run/stepRun.ts';

const fresh: RunCourse = {
  state: 'sending',
  message: '',
  parts: [
    { from: 0, to: 3, before: null },
    { from: 3, to: 5, before: 'Set the exposure to 0.40 mm' },
  ],
  partIndex: 0,
  sending: null,
  named: 0,
  reached: [],
};

/** Plays events one after the other. */
function play(events: readonly RunEvent[], from = fresh) {
  let course = from;
  return events.map((event) => {
    const before = course;
    const step = stepRun(course, event);
    course = step.course;
    return { event, before, ...step };
  });
}
const last = (events: readonly RunEvent[]) => play(events).at(-1)!;
const name = (nth: number, from: number, key = `k${nth}`): RunEvent => ({
  kind: 'named',
  key,
  nth,
  bootId: 'boot',
  from,
});
const reach = (...indexes: number[]): RunEvent => ({
  kind: 'reached',
  strokes: indexes.map((index) => ({ index, spans: [] })),
});
const cutting: readonly RunEvent[] = [{ kind: 'taken' }, name(0, 0)];

describe('a run, step by step', () => {
  it('is prepared, named, sent, acknowledged, waits for hands, is looked at and unloaded', () => {
    const steps = play([
      ...cutting,
      reach(0, 1, 2),
      { kind: 'finished', key: 'k0' },
      { kind: 'handsDone', open: 'again' },
      name(1, 3),
      reach(3),
      reach(4),
      { kind: 'finished', key: 'k1' },
      { kind: 'unloaded' },
    ]);
    expect(steps.map(({ course }) => course.state)).toEqual(
      'sending cutting cutting waiting sending cutting cutting cutting looking done'.split(' '),
    );
    expect(steps[3]!.course.message).toMatch(/exposure/);
    expect(steps.flatMap(({ commands }) => commands.map(({ kind }) => kind))).toEqual(
      'prepare transmit prepare transmit wear'.split(' '),
    );
  });

  it('stopped before anything was named it ends, and what was being prepared is not sent', () => {
    const steps = play([{ kind: 'taken' }, { kind: 'stopOrdered' }, name(0, 0)]);
    expect(steps.at(-1)).toMatchObject({ course: { state: 'stopped', sending: null }, commands: [] });
  });

  it('stopped while it cuts it is over only when the machine stands still', () => {
    const steps = play([
      ...cutting,
      reach(0),
      { kind: 'stopOrdered' },
      reach(1),
      { kind: 'stopTaken', key: 'k0' },
    ]);
    expect(steps.map(({ course }) => course.state).slice(2)).toEqual([
      'cutting',
      'stopping',
      'stopping',
      'stopped',
    ]);
    expect(steps[3]!.commands).toEqual([{ kind: 'tell', order: 'stop', key: 'k0' }]);
    expect(steps.at(-1)!.course.reached).toEqual([[0, 2]]);
  });

  it('that cannot be stopped from here is held, says so first, and what had gone out', () => {
    const { course } = last([
      ...cutting,
      { kind: 'stopOrdered' },
      { kind: 'stopRefused', key: 'k0', outTo: 2 },
    ]);
    expect(course.state).toBe('held');
    expect(course.message).toMatch(
      /^Stop it at the machine’s own panel, now.*2 of 3 strokes had gone out, up to number 2/,
    );
  });

  it('held on a machine that tells nothing, goes on after what went out or with all of it', () => {
    const held: readonly RunEvent[] = [
      ...cutting,
      { kind: 'stopOrdered' },
      { kind: 'stopRefused', key: 'k0', outTo: 2 },
    ];
    const leave = last([...held, { kind: 'handsDone', open: 'leave' }]);
    expect(leave.strokes.map(({ index }) => index)).toEqual([0, 1]);
    expect(leave.commands).toEqual([{ kind: 'prepare', nth: 1, part: 0, from: 2 }]);
    const again = last([...held, { kind: 'handsDone', open: 'again' }]);
    expect(again.commands).toEqual([{ kind: 'prepare', nth: 1, part: 0, from: 0 }]);
  });

  it('counts all as cut where a machine took everything and says nothing', () => {
    const { course, strokes } = last([...cutting, { kind: 'sentAll', key: 'k0' }]);
    expect(strokes).toHaveLength(3);
    expect(course.state).toBe('waiting');
  });

  it('asks a machine that remembers, waits while it works, and sends only what is open', () => {
    const lost: RunEvent = { kind: 'linkLost', key: 'k0', outTo: 3, canAsk: true, reason: 'gone' };
    const memory = (state: 'working' | 'broken', upTo: number): RunEvent => ({
      kind: 'remembered',
      key: 'k0',
      memory: {
        bootId: 'boot',
        job: {
          key: 'k0',
          state,
          reached: [...Array(upTo).keys()].map((index) => ({ index, spans: [] })),
          reason: '',
        },
      },
    });
    const steps = play([...cutting, lost, memory('working', 1), memory('broken', 2)]);
    expect(steps[2]!.commands).toEqual([{ kind: 'ask', key: 'k0', isLater: false }]);
    expect(steps[3]!.commands).toEqual([{ kind: 'ask', key: 'k0', isLater: true }]);
    expect(steps[4]!.commands).toEqual([{ kind: 'prepare', nth: 1, part: 0, from: 2 }]);
  });

  it('is held when the machine lost its power, and says which stroke nobody knows of', () => {
    const memory = { bootId: 'another', job: null };
    const { course } = last([...cutting, reach(0), { kind: 'remembered', key: 'k0', memory }]);
    expect(course).toMatchObject({
      state: 'held',
      message: expect.stringMatching(/stroke 2 may be cut/) as string,
    });
  });

  it('taken up by another server it asks before it sends, and goes on stopping what was stopping', () => {
    expect(last([...cutting, { kind: 'taken' }]).commands).toEqual([
      { kind: 'ask', key: 'k0', isLater: false },
    ]);
    expect(last([...cutting, { kind: 'stopOrdered' }, { kind: 'taken' }]).commands).toEqual([
      { kind: 'tell', order: 'stop', key: 'k0' },
    ]);
  });

  it('says nothing was sent when the machine was not there, also after it was named', () => {
    const reason = 'No cutter answers.';
    expect(last([{ kind: 'taken' }, { kind: 'unreachable', reason }]).course.message).toBe(
      'No cutter answers. Nothing was sent.',
    );
    expect(last([...cutting, { kind: 'unreachable', reason }]).course.state).toBe('held');
  });
});

/** Any sequence of events: of this transmission and older ones, in order and out of it, twice and too late. */
const keys = fc.constantFrom('k0', 'k1', 'k2', 'k3', 'other');
const boots = fc.constantFrom('boot', 'another');
const indexes = fc.integer({ min: -1, max: 7 });
const strokes = fc.array(
  indexes.map((index) => ({ index, spans: [] })),
  { maxLength: 4 },
);
const outTo = fc.integer({ min: 0, max: 6 });
const job = fc.record({
  key: fc.option(keys),
  state: fc.constantFrom(...(['loaded', 'working', 'paused', 'finished', 'stopped', 'broken'] as const)),
  reached: strokes,
  reason: fc.constant('jam'),
});
const events: fc.Arbitrary<RunEvent> = fc.oneof(
  fc.constantFrom<RunEvent>(
    { kind: 'taken' },
    { kind: 'stopOrdered' },
    { kind: 'pauseOrdered' },
    { kind: 'resumeOrdered' },
    { kind: 'handsDone', open: 'again' },
    { kind: 'handsDone', open: 'leave' },
    { kind: 'unloaded' },
    { kind: 'unreachable', reason: 'no' },
    { kind: 'failed', reason: 'no' },
    { kind: 'repeatOrdered', part: { from: 5, to: 7, before: null } },
  ),
  fc.record({
    kind: fc.constant('named' as const),
    key: keys,
    nth: fc.integer({ min: 0, max: 5 }),
    bootId: boots,
    from: indexes,
  }),
  fc.record({ kind: fc.constant('reached' as const), strokes }),
  fc.record({
    kind: fc.constantFrom(
      'sentAll' as const,
      'finished' as const,
      'forgotten' as const,
      'stopTaken' as const,
    ),
    key: keys,
  }),
  fc.record({ kind: fc.constantFrom('paused' as const, 'resumed' as const), key: keys }),
  fc.record({ kind: fc.constant('halted' as const), key: keys, reason: fc.constant('jam') }),
  fc.record({
    kind: fc.constantFrom('linkLost' as const, 'silent' as const),
    key: keys,
    outTo,
    canAsk: fc.boolean(),
    reason: fc.constant('gone'),
  }),
  fc.record({ kind: fc.constant('stopRefused' as const), key: keys, outTo: fc.option(outTo) }),
  fc.record({
    kind: fc.constant('remembered' as const),
    key: keys,
    memory: fc.record({ bootId: boots, job: fc.option(job) }),
  }),
);

/** Half of the events fit the course as it is: otherwise few sequences would get far. */
function fitting(course: RunCourse, commands: readonly RunCommand[], draw: number): RunEvent {
  const prepare = commands.find((command) => command.kind === 'prepare');
  if (prepare?.kind === 'prepare') return name(prepare.nth, prepare.from);
  const key = course.sending?.key ?? 'k0';
  if (course.state === 'held' || course.state === 'waiting') return { kind: 'handsDone', open: 'again' };
  if (course.state === 'stopping') return { kind: 'stopTaken', key };
  const next = course.reached.at(-1)?.[1] ?? 0;
  return draw < 0.6 ? reach(next) : { kind: 'finished', key };
}

describe('whatever happens to a run, in any order', () => {
  it('ends once, wears once, acknowledges once, sends what was named once, and obeys a stop', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(events, fc.double({ min: 0, max: 1, noNaN: true }), fc.boolean()), {
          maxLength: 60,
        }),
        (drawn) => {
          let course = fresh;
          let pending: readonly RunCommand[] = [];
          let isStopped = false;
          const acknowledged = new Set<number>();
          const sent = new Set<number>();
          let wears = 0;
          for (const [event, draw, isFitting] of drawn) {
            const given = isFitting ? fitting(course, pending, draw) : event;
            const before = course;
            const step = stepRun(course, given);
            course = step.course;
            if (step.commands.length > 0) pending = step.commands;
            if (isRunOver(before.state)) {
              expect(step).toEqual({ course: before, commands: [], strokes: [] });
              continue;
            }
            for (const { index } of step.strokes) {
              expect(acknowledged.has(index)).toBe(false);
              acknowledged.add(index);
            }
            wears += step.commands.filter(({ kind }) => kind === 'wear').length;
            expect(wears).toBe(isRunOver(course.state) ? 1 : 0);
            if (given.kind === 'stopOrdered') isStopped = true;
            if (given.kind === 'handsDone' && before.state === 'held') isStopped = false;
            for (const command of step.commands) {
              if (command.kind === 'transmit') {
                // Named by this very event, before its first byte, for what is open; and never a second time.
                expect(given).toMatchObject({ kind: 'named', key: command.key, from: command.from });
                expect(course.sending?.key).toBe(command.key);
                expect(sent.has(course.named)).toBe(false);
                sent.add(course.named);
              }
              if (command.kind === 'prepare') expect(course.sending).toBeNull();
              if (isStopped) expect(['wear', 'ask', 'tell stop']).toContain(kindOf(command));
            }
          }
        },
      ),
      { seed: 12, numRuns: 3000 },
    );
  });
});

function kindOf(command: RunCommand): string {
  return command.kind === 'tell' ? `tell ${command.order}` : command.kind;
}
