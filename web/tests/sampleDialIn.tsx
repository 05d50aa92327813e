import { QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { composeAnswer } from '#core/answer/composeAnswer.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { DialInReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { sampleAnswer, sampleStation } from '#web/tests/sampleBook.ts';

/** Only for tests: a dial-in with cuts as its views see it. */
/** The words of a picture of a view. */
export const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');
export const render = (view: ReactNode) =>
  renderToStaticMarkup(<QueryClientProvider client={makeQueryClient()}>{view}</QueryClientProvider>);
export const nothing = () => undefined;

export type Cut = BenchAnswer['cuts'][number];
export const cut = (force: number, grade: Cut['grade'], change: Partial<Cut> = {}): Cut => ({
  id: force,
  conditionId: 10,
  machineId: 2,
  operation: 'kiss',
  force,
  forceGf: force,
  speedMmPerS: 200,
  passes: 1,
  exposureMm: 0.3,
  bladeMetres: 100,
  grade,
  flaws: [],
  author: 'Ines',
  lot: '',
  colour: '',
  at: '2026-11-25T10:00:00.000Z',
  dialInId: 4,
  ...change,
});
export const station = sampleStation();
export const opened: DialInReply['dialIn'] = {
  id: 4,
  machineId: 2,
  conditionId: 10,
  lot: '',
  colour: '',
  operation: 'kiss',
  passes: 1,
  speed: 200,
  exposureMm: 0.3,
  state: 'open',
  loadCount: 0,
  card: null,
  scrap: { widthMm: 150, heightMm: 100, piece: 'square', taken: [] },
  author: 'Tove',
  openedAt: '2026-11-25T09:00:00.000Z',
  changedAt: '2026-11-25T09:30:00.000Z',
  version: 3,
};

export function answerOf(cuts: readonly Cut[]) {
  const answer = composeAnswer(station, 'kiss', null, cuts);
  if (!answer) throw new Error('the sample sheet has a kiss cut');
  return answer;
}

export function dialOf(change: Partial<Dial> = {}): Dial {
  const cuts = change.cuts ?? [];
  return {
    bench: sampleAnswer(station, { cuts: [...cuts] }),
    dialIn: opened,
    isLoaded: true,
    card: null,
    cuts,
    force: 90,
    passes: 1,
    flaws: [],
    isLayered: true,
    gradedCell: null,
    lyingForce: null,
    isBusy: false,
    error: null,
    kept: null,
    keepError: null,
    chooseCell: nothing,
    setForce: nothing,
    nudge: nothing,
    grade: nothing,
    undo: nothing,
    toggleFlaw: nothing,
    gradeCells: nothing,
    change: nothing,
    cutCard: nothing,
    putCardAway: nothing,
    keep: nothing,
    ...change,
  } as unknown as Dial;
}
