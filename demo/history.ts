import type { RunVerdict } from '#core/setting/setting.ts';
import type { DepthGrade, Flaw } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { ConditionKind } from '#core/stack/material.ts';

/** One afternoon of test cuts and what was kept of it. */
export interface DialInStory {
  readonly material: string;
  readonly condition: ConditionKind;
  readonly machine: 'Gannet 600' | 'Dunlin desk';
  readonly operation: DepthOperation;
  readonly author: string;
  readonly daysAgo: number;
  readonly speed: number;
  readonly passes: number;
  readonly exposureMm: number;
  readonly bladeMetres: number;
  /** The number of the blade that cut it, where somebody noted it. */
  readonly bladeNumber?: number;
  readonly lot?: string;
  readonly cuts: readonly (readonly [force: number, grade: DepthGrade, flaws?: readonly Flaw[]])[];
  /** The force kept and the words with it, or `null` when nothing was. */
  readonly kept: { readonly force: number; readonly reason: string } | null;
}

const shared = { author: 'Ines', speed: 200, passes: 1, bladeMetres: 20 } as const;
const roll = { ...shared, machine: 'Gannet 600', condition: 'bare' } as const;
const desk = { ...shared, machine: 'Dunlin desk', condition: 'bare', author: 'Tove' } as const;

/** A few weeks of finding settings. Forces are on each machine's own scale. */
export const DIAL_INS: readonly DialInStory[] = [
  {
    ...roll,
    material: 'Herringglass matt white',
    condition: 'laminated',
    operation: 'kiss',
    lot: '26-B',
    daysAgo: 34,
    exposureMm: 0.375,
    cuts: [
      [70, 1],
      [84, 2],
      [98, 3],
      [135, 5],
      [106, 3],
    ],
    kept: { force: 106, reason: 'gulls lift clean, the liner shows nothing' },
  },
  {
    ...roll,
    material: 'Herringglass matt white',
    condition: 'laminated',
    operation: 'through',
    lot: '26-B',
    daysAgo: 34,
    exposureMm: 0.375,
    cuts: [
      [180, 5],
      [235, 7],
    ],
    kept: { force: 235, reason: 'card comes free, mat unmarked' },
  },
  {
    ...roll,
    material: 'Mooring vinyl, navy',
    operation: 'kiss',
    lot: '26-D',
    daysAgo: 27,
    exposureMm: 0.25,
    cuts: [
      [50, 1],
      [66, 2],
      [84, 3],
      [120, 4],
    ],
    kept: { force: 92, reason: 'weeds in one pull' },
  },
  {
    ...roll,
    material: 'Spindrift clear film',
    operation: 'kiss',
    daysAgo: 12,
    bladeMetres: 120,
    author: 'Tove',
    exposureMm: 0.25,
    cuts: [
      [30, 1],
      [44, 3],
    ],
    kept: null,
  },
  {
    ...desk,
    material: 'Drift label paper',
    condition: 'printed',
    operation: 'kiss',
    daysAgo: 25,
    speed: 20,
    exposureMm: 0.3,
    cuts: [
      [3, 1],
      [4, 2],
      [5, 3],
      [8, 5],
    ],
    kept: { force: 5, reason: 'lowest that lifts at the corners' },
  },
  {
    ...desk,
    material: 'Drift label paper',
    condition: 'printed',
    operation: 'through',
    daysAgo: 25,
    speed: 20,
    exposureMm: 0.3,
    cuts: [
      [10, 6],
      [13, 7],
    ],
    kept: { force: 13, reason: 'labels part, mat fine' },
  },
  {
    ...desk,
    material: 'Sailcloth card, chalk',
    operation: 'through',
    daysAgo: 20,
    speed: 8,
    passes: 2,
    exposureMm: 0.5,
    bladeMetres: 90,
    cuts: [
      [7, 2, ['fuzzy']],
      [9, 7],
      [12, 8],
    ],
    kept: { force: 9, reason: 'two light passes, clean edge' },
  },
  {
    ...desk,
    material: 'Lantern stencil sheet',
    operation: 'through',
    daysAgo: 9,
    speed: 5,
    exposureMm: 0.4,
    bladeMetres: 30,
    cuts: [
      [9, 2],
      [11, 2, ['dragged']],
      [13, 7],
    ],
    kept: { force: 13, reason: 'slow, rounded corners come out by themselves' },
  },
];

/** A run as it was noted afterwards. */
export interface RunStory {
  readonly job: string;
  readonly lot?: string;
  readonly daysAgo: number;
  readonly author: string;
  readonly verdict: RunVerdict;
  readonly piecesGood: number;
  readonly piecesSpoiled: number;
  readonly note: string;
}

export const RUNS: readonly RunStory[] = [
  {
    job: 'Tide-table stickers',
    lot: '26-B',
    daysAgo: 30,
    author: 'Ines',
    verdict: 'clean',
    piecesGood: 8,
    piecesSpoiled: 0,
    note: '',
  },
  {
    job: 'Tide-table stickers',
    lot: '26-B',
    daysAgo: 23,
    author: 'Ines',
    verdict: 'clean',
    piecesGood: 8,
    piecesSpoiled: 0,
    note: 'lifted with one finger',
  },
  {
    job: 'Boat name Rein',
    lot: '26-D',
    daysAgo: 21,
    author: 'Tove',
    verdict: 'clean',
    piecesGood: 5,
    piecesSpoiled: 0,
    note: '',
  },
  {
    job: 'Tide-table stickers',
    lot: '26-B',
    daysAgo: 14,
    author: 'Tove',
    verdict: 'someSpoiled',
    piecesGood: 7,
    piecesSpoiled: 1,
    note: 'corner hung on one small gull',
  },
  {
    job: 'Crate stencil, anchor',
    daysAgo: 8,
    author: 'Tove',
    verdict: 'clean',
    piecesGood: 1,
    piecesSpoiled: 0,
    note: '',
  },
  {
    job: 'Tide-table stickers',
    lot: '26-B',
    daysAgo: 6,
    author: 'Ines',
    verdict: 'clean',
    piecesGood: 8,
    piecesSpoiled: 0,
    note: '',
  },
  {
    job: 'Boat name Rein',
    lot: '26-F',
    daysAgo: 3,
    author: 'Ines',
    verdict: 'failed',
    piecesGood: 1,
    piecesSpoiled: 4,
    note: 'edges hang all over since the new roll came',
  },
];
