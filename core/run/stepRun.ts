import { addIndex, hasIndex } from '#core/collections/indexRanges.ts';
import { isRunOver, type RunState, type StrokeOutcome } from '#core/run/run.ts';
import {
  firstOpen,
  type MachineMemory,
  type RunCommand,
  type RunCourse,
  type RunEvent,
} from '#core/run/runCourse.ts';
import { RUN_WORDS } from '#core/run/runWords.ts';

/** Where an event leads, what is to be done, and the strokes that it acknowledged for the first time. */
export interface RunStep {
  readonly course: RunCourse;
  readonly commands: readonly RunCommand[];
  readonly strokes: readonly StrokeOutcome[];
}

/** States in which a transmission is under way. */
const UNDER_WAY: ReadonlySet<RunState> = new Set(['cutting', 'paused', 'stopping']);

/**
 * What an event does to a run: total, and pure. An event that does not fit the state changes nothing and commands
 * nothing: it came too late, or twice.
 *
 * @example stepRun({ ...course, state: 'done' }, { kind: 'stopOrdered' }).commands // []
 */
export function stepRun(course: RunCourse, event: RunEvent): RunStep {
  if (isRunOver(course.state)) return stay(course);
  switch (event.kind) {
    case 'taken':
      return takeUp(course);
    case 'named':
      return name(course, event);
    case 'unreachable':
      return course.state === 'stopping'
        ? end(course, 'stopped', RUN_WORDS.stoppedByHand)
        : when(course, ['sending', 'cutting'], () =>
            hold(course, `${event.reason} ${RUN_WORDS.nothingSent}`),
          );
    case 'reached':
      return acknowledge(course, event.strokes);
    case 'stopOrdered':
      return orderStop(course);
    case 'pauseOrdered':
      return when(course, ['cutting'], () => tell(course, 'pause'));
    case 'resumeOrdered':
      return when(course, ['paused'], () => tell(course, 'resume'));
    case 'paused':
      return course.state === 'cutting' && isOf(course, event.key)
        ? enter(course, 'paused', '')
        : stay(course);
    case 'resumed':
      return course.state === 'paused' && isOf(course, event.key)
        ? enter(course, 'cutting', '')
        : stay(course);
    case 'handsDone':
      return goOn(course, event.open);
    case 'repeatOrdered':
      return when(course, ['looking'], () =>
        advance({
          ...course,
          parts: [...course.parts, event.part],
          partIndex: course.parts.length,
          sending: null,
        }),
      );
    case 'unloaded':
      return when(course, ['looking'], () => end(course, 'done', ''));
    case 'failed':
      return hold(course, event.reason);
    default:
      return UNDER_WAY.has(course.state) && isOf(course, event.key)
        ? stepTransmission(course, event)
        : stay(course);
  }
}

/** Events of the transmission that is under way. */
type TransmissionEvent = Extract<
  RunEvent,
  {
    readonly kind:
      | 'sentAll'
      | 'finished'
      | 'halted'
      | 'linkLost'
      | 'silent'
      | 'remembered'
      | 'forgotten'
      | 'stopTaken'
      | 'stopRefused';
  }
>;

function stepTransmission(course: RunCourse, event: TransmissionEvent): RunStep {
  switch (event.kind) {
    case 'sentAll':
      return endSilently(course);
    case 'finished':
      return endPart(course, event.key);
    case 'halted':
      return halt(course, event.reason);
    case 'linkLost':
    case 'silent':
      return loseLink(course, event);
    case 'remembered':
      return recall(course, event.memory);
    case 'forgotten':
      return hold(course, RUN_WORDS.forgotten);
    case 'stopTaken':
      return end(course, 'stopped', RUN_WORDS.stoppedByHand);
    case 'stopRefused':
      return holdUnstopped(course, event.outTo);
  }
}

function takeUp(course: RunCourse): RunStep {
  const { state, sending } = course;
  if (state === 'stopping') return tell(course, 'stop');
  if (state !== 'sending' && state !== 'cutting' && state !== 'paused') return stay(course);
  return sending ? ask(course, sending.key) : advance(course);
}

/** Named before its first byte goes out, and only for what is open now: then it may be sent, once. */
function name(course: RunCourse, { key, nth, bootId, from }: Extract<RunEvent, { kind: 'named' }>): RunStep {
  const isWanted = course.state === 'sending' && !course.sending && course.named === nth;
  if (!isWanted || firstOpen(course) !== from) return stay(course);
  const named: RunCourse = {
    ...course,
    state: 'cutting',
    message: '',
    sending: { key, bootId, outTo: null },
    named: nth + 1,
  };
  return step(named, [{ kind: 'transmit', key, part: course.partIndex, from }]);
}

/** Each stroke once; what is said of one that is no stroke of the run is not taken. */
function acknowledge(course: RunCourse, strokes: readonly StrokeOutcome[]): RunStep {
  const total = course.parts.reduce((most, { to }) => Math.max(most, to), 0);
  let { reached } = course;
  const fresh = strokes.filter(({ index }) => {
    if (!Number.isInteger(index) || index < 0 || index >= total || hasIndex(reached, index)) return false;
    reached = addIndex(reached, index);
    return true;
  });
  return fresh.length === 0 ? stay(course) : { course: { ...course, reached }, commands: [], strokes: fresh };
}

/** All that a silent machine was given counts as cut until somebody looks. */
function endSilently(course: RunCourse): RunStep {
  if (course.state === 'stopping') {
    const { to = 0 } = course.parts[course.partIndex] ?? {};
    return holdUnstopped(course, to);
  }
  const given = acknowledge(course, openStrokes(course, Infinity));
  const next = advance({ ...given.course, sending: null });
  const message = next.course.message || RUN_WORDS.silent;
  return { ...next, course: { ...next.course, message }, strokes: given.strokes };
}

function endPart(course: RunCourse, key: string): RunStep {
  // Reports can get lost: the machine remembers.
  if (firstOpen(course) !== null) return ask(course, key);
  return settle(course);
}

/** The transmission is over: what follows, unless a stop was ordered meanwhile. */
function settle(course: RunCourse): RunStep {
  if (course.state === 'stopping') return end(course, 'stopped', RUN_WORDS.stoppedByHand);
  return advance({ ...course, sending: null });
}

function halt(course: RunCourse, reason: string): RunStep {
  if (course.state === 'stopping') return end(course, 'stopped', RUN_WORDS.stoppedByHand);
  return hold(course, RUN_WORDS.machineStopped(reason));
}

function loseLink(course: RunCourse, event: Extract<RunEvent, { kind: 'linkLost' | 'silent' }>): RunStep {
  if (event.canAsk) {
    const state = course.state === 'stopping' ? 'stopping' : 'cutting';
    return step({ ...course, state, message: RUN_WORDS.asking }, [askCommand(event.key, false)]);
  }
  if (course.state === 'stopping') return holdUnstopped(course, event.outTo);
  const out = outOf(course, event.outTo);
  return hold(withOut(course, event.outTo), `${event.reason} ${out}`);
}

function recall(course: RunCourse, { bootId, job }: MachineMemory): RunStep {
  const { sending } = course;
  if (!sending) return stay(course);
  const isStopping = course.state === 'stopping';
  // Nothing moves in a machine that was switched off.
  if (bootId !== sending.bootId) {
    if (isStopping) return end(course, 'stopped', RUN_WORDS.stoppedByHand);
    return hold(course, RUN_WORDS.powerLost((firstOpen(course) ?? 0) + 1));
  }
  // The same machine, but it was never loaded for this: nothing of it was begun.
  if (!job || job.key !== sending.key) return settle(course);
  const known = acknowledge(course, job.reached);
  return { ...judge(known.course, sending.key, job), strokes: known.strokes };
}

function judge(
  course: RunCourse,
  key: string,
  { state, reason }: NonNullable<MachineMemory['job']>,
): RunStep {
  switch (state) {
    case 'working':
    case 'paused':
      return course.state === 'stopping' ? tell(course, 'stop') : step(course, [askCommand(key, true)]);
    case 'stopped':
      return halt(course, reason);
    case 'loaded':
    case 'broken':
    case 'finished':
      return settle(course);
  }
}

function orderStop(course: RunCourse): RunStep {
  const { state, sending } = course;
  if (sending && UNDER_WAY.has(state)) {
    return tell({ ...course, state: 'stopping', message: RUN_WORDS.stopping }, 'stop');
  }
  return end(course, 'stopped', RUN_WORDS.stoppedByHand);
}

/** The machine cannot be told: a person stops it, and looks. */
function holdUnstopped(course: RunCourse, outTo: number | null): RunStep {
  const out = outTo === null ? '' : ` ${outOf(course, outTo)}`;
  return hold(withOut(course, outTo), `${RUN_WORDS.stopThere}${out}`);
}

function goOn(course: RunCourse, open: 'again' | 'leave'): RunStep {
  if (course.state === 'waiting') return advance({ ...course, sending: null });
  if (course.state !== 'held') return stay(course);
  const next = firstOpen(course);
  const unknownTo = course.sending?.outTo ?? (next === null ? 0 : next + 1);
  const left = open === 'leave' ? acknowledge(course, openStrokes(course, unknownTo)) : stay(course);
  // A person has looked: what the machine remembers of the last transmission counts no more.
  return { ...advance({ ...left.course, sending: null }), strokes: left.strokes };
}

/** To the next stroke that is open, the next stop for hands, or the end. */
function advance(course: RunCourse): RunStep {
  for (let index = course.partIndex; ; index++) {
    const part = course.parts[index];
    const at = { ...course, partIndex: index };
    if (!part) return enter({ ...at, sending: null }, 'looking', '');
    if (index > course.partIndex && part.before !== null) {
      return enter({ ...at, sending: null }, 'waiting', part.before);
    }
    const from = firstOpen(at);
    if (from === null) continue;
    const sending: RunCourse = { ...at, sending: null, state: 'sending', message: '' };
    return step(sending, [{ kind: 'prepare', nth: course.named, part: index, from }]);
  }
}

/** Strokes of the part that are open, before a bound. */
function openStrokes({ parts, partIndex, reached }: RunCourse, before: number): readonly StrokeOutcome[] {
  const { from = 0, to = 0 } = parts[partIndex] ?? {};
  const open: StrokeOutcome[] = [];
  for (let index = from; index < Math.min(to, before); index++) {
    if (!hasIndex(reached, index)) open.push({ index, spans: [] });
  }
  return open;
}

function outOf({ parts, partIndex }: RunCourse, outTo: number): string {
  const { from = 0, to = 0 } = parts[partIndex] ?? {};
  return RUN_WORDS.goneOut(Math.max(0, outTo - from), to - from, from);
}

function withOut(course: RunCourse, outTo: number | null): RunCourse {
  return course.sending ? { ...course, sending: { ...course.sending, outTo } } : course;
}

function tell(course: RunCourse, order: 'stop' | 'pause' | 'resume'): RunStep {
  if (!course.sending)
    return order === 'stop' ? end(course, 'stopped', RUN_WORDS.stoppedByHand) : stay(course);
  return step(course, [{ kind: 'tell', order, key: course.sending.key }]);
}

function ask(course: RunCourse, key: string): RunStep {
  return step(course, [askCommand(key, false)]);
}

function askCommand(key: string, isLater: boolean): RunCommand {
  return { kind: 'ask', key, isLater };
}

function hold(course: RunCourse, message: string): RunStep {
  return enter(course, 'held', message);
}

function end(course: RunCourse, state: RunState, message: string): RunStep {
  return step({ ...course, state, message }, [{ kind: 'wear' }]);
}

function enter(course: RunCourse, state: RunState, message: string): RunStep {
  return step({ ...course, state, message }, []);
}

function step(course: RunCourse, commands: readonly RunCommand[]): RunStep {
  return { course, commands, strokes: [] };
}

function stay(course: RunCourse): RunStep {
  return step(course, []);
}

function when(course: RunCourse, states: readonly RunState[], act: () => RunStep): RunStep {
  return states.includes(course.state) ? act() : stay(course);
}

function isOf({ sending }: RunCourse, key: string): boolean {
  return sending?.key === key;
}
