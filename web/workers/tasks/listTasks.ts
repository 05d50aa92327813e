import type { RunSheet } from '#core/job/composeRunSheet.ts';
import { sheetPriorInDetail } from '#core/knowledge/sheetPrior.ts';
import { judgeEvents } from '#core/wear/judgeEvents.ts';
import type { UnitSystem } from '#core/units/length.ts';
import type { Writing } from '#core/units/writing.ts';
import type { LabelData } from '#web/endpoints/jobs/drawLabels.ts';
import { readCsvBook, readJsonBook } from '#web/endpoints/book/readBookFile.ts';
import {
  answerTask,
  effortTask,
  keptTask,
  reasonsTask,
  waysTask,
  windowTask,
} from '#web/workers/tasks/answerTasks.ts';
import { parseBody } from '#web/workers/tasks/parseBody.ts';
import { fitBookTask, learnSpreadsTask } from '#web/workers/tasks/fitBookTask.ts';
import {
  arrangeTask,
  checkDrawingTask,
  findSpotTask,
  layersTask,
  planSheetTask,
  relayTask,
  startLayoutTask,
  startJobTask,
} from '#web/workers/tasks/drawingTasks.ts';
import {
  drawingPictureTask,
  marksPageTask,
  printSheetTask,
  sheetPictureTask,
  coverTask,
  edgeTask,
  showTask,
} from '#web/workers/tasks/pictureTasks.ts';
import { fontFactsTask, outlineTextTask, wordsTask } from '#web/workers/tasks/wordTasks.ts';

/** Everything that the server has worked out in its threads, by name. Inputs and results are plain data. */
export const TASKS = {
  answer: answerTask,
  window: windowTask,
  effort: effortTask,
  ways: waysTask,
  reasons: reasonsTask,
  kept: keptTask,
  believe: (input: Parameters<typeof sheetPriorInDetail>) => sheetPriorInDetail(...input),
  judgeEvents: (input: Parameters<typeof judgeEvents>) => judgeEvents(...input),
  fitBook: fitBookTask,
  learnSpreads: learnSpreadsTask,
  startJob: startJobTask,
  cover: coverTask,
  edge: edgeTask,
  show: showTask,
  words: wordsTask,
  outlineText: outlineTextTask,
  fontFacts: fontFactsTask,
  checkDrawing: checkDrawingTask,
  findSpot: findSpotTask,
  relay: relayTask,
  arrange: arrangeTask,
  sheetPicture: sheetPictureTask,
  drawingPicture: drawingPictureTask,
  startLayout: startLayoutTask,
  planSheet: planSheetTask,
  printSheet: printSheetTask,
  layers: layersTask,
  marksPage: marksPageTask,
  // What writes PDF is big and seldom wanted: it is read when it is.
  runSheet: async ({ sheet, system }: { readonly sheet: RunSheet; readonly system: UnitSystem }) =>
    (await import('#web/endpoints/jobs/drawRunSheet.ts')).drawRunSheet(sheet, system),
  labels: async ({
    labels,
    ...manner
  }: {
    readonly labels: readonly LabelData[];
    readonly system: UnitSystem;
    readonly writing: Writing;
  }) => (await import('#web/endpoints/jobs/drawLabels.ts')).drawLabels(labels, manner),
  readJsonBook,
  readCsvBook,
  parseBody,
} as const;
