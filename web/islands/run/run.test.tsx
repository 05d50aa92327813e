import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import type { Run, RunState } from '#core/run/run.ts';
import { LookPanel } from '#web/islands/run/LookPanel.tsx';
import { RunProgress } from '#web/islands/run/RunProgress.tsx';
import type { Look } from '#web/islands/run/useLook.ts';
import type { LiveRun } from '#web/islands/run/useRun.ts';

const stroke = (operation: 'kiss' | 'through', repeat = 0) => ({
  operation,
  isTab: false,
  contourId: 0,
  repeat,
  points: [
    { x: 0, y: 0 },
    { x: 9, y: 0 },
  ],
});
const run = (state: RunState, change: Partial<Run> = {}): Run => ({
  id: 3,
  jobId: 1,
  jobName: 'Gulls',
  dialInId: null,
  judged: null,
  machineId: 1,
  conditionId: 1,
  state,
  message: '',
  sheetWidthMm: 100,
  sheetHeightMm: 100,
  strokes: [stroke('kiss'), stroke('kiss'), stroke('through'), stroke('through')],
  outTo: null,
  outcomes: [{ index: 0, spans: [] }],
  seconds: 80,
  verdict: null,
  piecesGood: 0,
  piecesSpoiled: 0,
  note: '',
  flaws: [],
  sheetsUsed: 1,
  humidity: null,
  author: 'Ines',
  startedAt: '',
  endedAt: null,
  ...change,
});
const live = (state: RunState, change: Partial<Run> = {}, isLinked = true) =>
  ({
    run: run(state, change),
    head: null,
    error: null,
    isLinked,
    together: { names: [], changedBy: null, isTold: false },
    settle: () => undefined,
    order: () => undefined,
  }) as LiveRun;
const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
const progress = (...given: Parameters<typeof live>) =>
  words(renderToStaticMarkup(<RunProgress live={live(...given)} canPause />));

describe('the progress of a run', () => {
  it('says what it is at, how far, and how long it still takes', () => {
    const said = progress('cutting');
    expect(said).toMatch(/Cutting · kiss/);
    expect(said).toMatch(/1 of 4 strokes · about 1 min 0 s left/);
    expect(said).toMatch(/Pause/);
    expect(said).toMatch(/Stop/);
  });

  it.each<[RunState, RegExp, RegExp]>([
    ['paused', /Go on/, /Done by hand/],
    ['waiting', /Done by hand, go on/, /Pause/],
    ['held', /Go on with stroke 2 .*Stroke 2 is cut: go on after it .*End here/, /Pause/],
    ['looking', /Look before unloading/, /Stop/],
    ['done', /Done/, /Stop/],
    ['unknown', /Not known how far/, /Stop/],
  ])('offers in the state %s what can be done there, and nothing else', (state, offered, absent) => {
    const said = progress(state);
    expect(said).toMatch(offered);
    expect(said).not.toMatch(absent);
  });

  it('tells the message, and that the link to the server is lost', () => {
    expect(progress('held', { message: 'The cutter stopped: jam.' })).toMatch(/The cutter stopped: jam/);
    expect(progress('cutting', {}, false)).toMatch(/Connection lost/);
  });
});

describe('the look before unloading', () => {
  const look = (change: Partial<Look> = {}) =>
    ({
      grades: [],
      graded: null,
      spot: null,
      error: null,
      choose: () => undefined,
      grade: () => Promise.resolve(),
      again: () => undefined,
      pointer: {},
      ...change,
    }) as unknown as Look;
  const draw = (own: Look, strokes?: Run['strokes']) =>
    renderToStaticMarkup(
      <LookPanel live={live('looking', strokes ? { strokes } : {})} look={own} isLayered />,
    );

  it('lists every operation once, with its passes and the last grade', () => {
    const grade = {
      id: 1,
      operation: 'through',
      grade: 7,
      passesDone: 2,
      spot: null,
      author: 'Ines',
      at: '',
    } as const;
    const said = words(
      draw(look({ grades: [grade] }), [stroke('kiss'), stroke('through'), stroke('through', 1)]),
    );
    expect(said).toMatch(/Kiss 1 pass/);
    expect(said).toMatch(/Through 2 passes · 7 parted/);
    expect(said).toMatch(/It is right: unload/);
  });

  it('shows the grades to tap once an operation or a spot is chosen', () => {
    expect(draw(look())).not.toMatch(/what do you see/);
    const said = words(draw(look({ graded: 'kiss', spot: { x: 1, y: 1 } })));
    expect(said).toMatch(/Kiss, at this spot: what do you see\?/);
    expect(said.match(/untouched|partial|hanging|clean|scored|gouged|breached|parted|scarred/g)).toHaveLength(
      9,
    );
  });
});
