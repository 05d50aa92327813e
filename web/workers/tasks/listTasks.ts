import { sheetPriorInDetail } from '#core/knowledge/sheetPrior.ts';
import { judgeEvents } from '#core/wear/judgeEvents.ts';
import { drawLabels } from '#web/endpoints/jobs/drawLabels.ts';
import { drawRunSheet } from '#web/endpoints/jobs/drawRunSheet.ts';
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
import { fitBookTask } from '#web/workers/tasks/fitBookTask.ts';
import {
  checkDrawingTask,
  fitLayoutTask,
  layersTask,
  planSheetTask,
  printSheetTask,
  startJobTask,
} from '#web/workers/tasks/drawingTasks.ts';

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
  startJob: startJobTask,
  checkDrawing: checkDrawingTask,
  fitLayout: fitLayoutTask,
  planSheet: planSheetTask,
  printSheet: printSheetTask,
  layers: layersTask,
  runSheet: drawRunSheet,
  labels: drawLabels,
  readJsonBook,
  readCsvBook,
  parseBody,
} as const;
