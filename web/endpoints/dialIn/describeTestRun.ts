import type { TestCard } from '#core/dialIn/testCard.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { PLAIN_PRINT } from '#core/job/job.ts';
import { cardParts } from '#core/job/cardParts.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { listRunStrokes } from '#core/program/listRunStrokes.ts';
import { makeProgram } from '#core/program/runProgram.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { writeCardSvg } from '#core/protocol/writeCard.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { LoadedStation } from '#core/station/station.ts';
import type { NewJob } from '#store/repositories/jobs/jobs.ts';
import type { NewRun } from '#store/repositories/runs/runs.ts';
import { factsOfSheet, toolsOf } from '#web/endpoints/runs/factsOfSheet.ts';

/** Test pieces to cut: where they lie on which sheet, and with what. */
export interface TestRunOrder {
  readonly card: TestCard;
  readonly role: CutRole;
  /** Everything but force, speed and passes, which each cell has its own of. */
  readonly values: SettingValues;
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  readonly name: string;
}

/** Test pieces as a run of the machine, and the job that stands for them in the records. */
export function describeTestRun(
  station: LoadedStation,
  { card, role, values, sheet, name }: TestRunOrder,
): { readonly run: Omit<NewRun, 'jobId' | 'author' | 'requestKey'>; readonly job: NewJob } {
  const { machine, loaded } = station;
  const { widthMm, heightMm } = sheet;
  const parts = cardParts(card, role, values, machine);
  const passes = parts.flatMap((part) => part.passes);
  const where = { machineId: machine.id, conditionId: loaded.condition.id };
  return {
    run: {
      ...where,
      sheetWidthMm: widthMm,
      sheetHeightMm: heightMm,
      strokes: listRunStrokes({ passes }),
      seconds: passes.reduce((sum, { seconds }) => sum + seconds, 0),
      lot: loaded.lot,
      colour: loaded.colour,
      settings: [],
      ...toolsOf(station),
      program: makeProgram(parts, {
        ...factsOfSheet(station, loaded, new Date()),
        file: fileOptionsOf(machine),
        sheetHeightMm: heightMm,
      }),
    },
    job: {
      ...where,
      name: name.slice(0, 120),
      format: 'svg',
      source: writeCardSvg(card, sheet, 'cut'),
      roles: {},
      lineRoles: {},
      areRolesGuessed: false,
      edits: [],
      sheet: { name: 'scrap', widthMm, heightMm, marginMm: 0 },
      layout: { isWhole: true, copies: 1, quantities: {}, turns: 'none', spacingMm: 0, placements: [] },
      print: PLAIN_PRINT,
      passes: PLAIN_CHOICES,
    },
  };
}
