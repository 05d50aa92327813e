import { IDENTITY, mapPoint, type Affine } from '#core/geometry/affine.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Stroke } from '#core/passes/plan.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Carried, LanguageChoice } from '#core/station/machine.ts';

/** What is said to a machine of a stroke, on the sheet in mm, y downwards. */
export type CutStroke = Pick<Stroke, 'points' | 'isTab' | 'ownTabs'>;

/** Strokes that are cut with the same numbers, on the machine's own scales. */
export interface CutPass {
  readonly values: Pick<SettingValues, 'force' | 'tabForce' | 'speed'>;
  readonly strokes: readonly CutStroke[];
  /** Which tool seat, from 1; the first where none is named. */
  readonly seat?: number;
  /** The numbered cut of the panel, from 1, where the panel holds several: it is chosen in place of a seat. */
  readonly panelCut?: number | undefined;
}

/** Where a sheet lies on its mat, and what is corrected of the shift between print and cut. */
export interface SheetPlacing {
  readonly leftMm: number;
  readonly bottomMm: number;
  /** In the sheet's own coordinates, mm, y downwards. */
  readonly correction: Affine;
}

/** How one machine wants its file. */
export interface FileOptions {
  readonly language: LanguageChoice;
  readonly carries: Carried;
  /** mm/s of one unit of its speed scale. */
  readonly mmPerSPerUnit: number;
  /** Where a sheet lies under the tool; left out, its lower left corner is the machine's origin. */
  readonly placing?: SheetPlacing | undefined;
}

/** What a machine is to cut between two pauses, in the trade's terms: without a word of any machine language. */
export interface CutProgram {
  readonly passes: readonly CutPass[];
  readonly sheetHeightMm: number;
  readonly carries: Carried;
  /** mm/s of one unit of the machine's speed scale. */
  readonly mmPerSPerUnit: number;
  /** Left out, the lower left corner of the sheet is the machine's origin. */
  readonly placing?: SheetPlacing | undefined;
}

/**
 * Where a point of the sheet lies for the machine: mm from its origin, y upwards.
 *
 * @example placePoint({ x: 1, y: 2 }, { sheetHeightMm: 100 }) // { x: 1, y: 98 }
 */
export function placePoint(
  point: PointMm,
  { sheetHeightMm, placing }: Pick<CutProgram, 'sheetHeightMm' | 'placing'>,
): PointMm {
  const { leftMm = 0, bottomMm = 0, correction = IDENTITY } = placing ?? {};
  const { x, y } = mapPoint(correction, point);
  return { x: x + leftMm, y: sheetHeightMm - y + bottomMm };
}
