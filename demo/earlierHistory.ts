import type { DialInStory, RunStory } from '#demo/history.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { ConditionKind } from '#core/stack/material.ts';

const roll = { machine: 'Gannet 600', condition: 'bare', author: 'Ines', speed: 200, passes: 1 } as const;
const desk = { machine: 'Dunlin desk', condition: 'bare', author: 'Tove', passes: 1 } as const;

/** Months before the last weeks: how the book came to be. Forces are on each machine's own scale. */
export const EARLIER_DIAL_INS: readonly DialInStory[] = [
  {
    ...roll,
    material: 'Herringglass matt white',
    condition: 'laminated',
    operation: 'kiss',
    lot: '25-K',
    daysAgo: 171,
    exposureMm: 0.375,
    bladeMetres: 12,
    cuts: [
      [60, 1],
      [80, 2],
      [95, 3],
      [130, 4],
    ],
    kept: { force: 98, reason: 'first try, corners of the tide tables lift' },
  },
  {
    ...roll,
    material: 'Herringglass matt white',
    condition: 'laminated',
    operation: 'through',
    lot: '25-K',
    daysAgo: 170,
    exposureMm: 0.375,
    bladeMetres: 13,
    cuts: [
      [150, 5],
      [220, 7],
    ],
    kept: { force: 225, reason: 'whole cards come free' },
  },
  {
    ...roll,
    material: 'Capstan vinyl',
    operation: 'kiss',
    daysAgo: 158,
    exposureMm: 0.25,
    bladeMetres: 40,
    cuts: [
      [50, 2],
      [62, 3],
      [100, 5],
      [78, 3],
    ],
    kept: { force: 74, reason: 'weeds clean, buoy labels' },
  },
  {
    ...desk,
    material: 'Saltbox gloss paper',
    condition: 'printed',
    operation: 'kiss',
    daysAgo: 149,
    speed: 20,
    exposureMm: 0.3,
    bladeMetres: 30,
    cuts: [
      [4, 1],
      [5, 2],
      [6, 3],
      [9, 5],
    ],
    kept: { force: 6, reason: 'lowest that lifts, jar lids' },
  },
  {
    ...desk,
    material: 'Rushlight transfer film, black',
    operation: 'kiss',
    daysAgo: 133,
    speed: 15,
    exposureMm: 0.3,
    bladeMetres: 55,
    cuts: [
      [5, 2],
      [7, 3],
      [9, 3, ['fuzzy']],
    ],
    kept: { force: 7, reason: 'the lowest that weeds clean; more left fuzzy edges' },
  },
  {
    ...desk,
    material: 'Harbourmaster cover',
    operation: 'through',
    daysAgo: 118,
    speed: 8,
    passes: 2,
    exposureMm: 0.5,
    bladeMetres: 120,
    cuts: [
      [8, 2, ['torn']],
      [10, 7],
      [14, 8],
    ],
    kept: { force: 10, reason: 'two light passes, no tearing along the fibres' },
  },
  {
    ...roll,
    material: 'Phosphor holographic film',
    operation: 'kiss',
    daysAgo: 96,
    speed: 150,
    exposureMm: 0.375,
    bladeMetres: 150,
    cuts: [
      [80, 1],
      [110, 2],
      [130, 3],
      [180, 5],
    ],
    kept: { force: 140, reason: 'mackerel skin: card-like, and slow' },
  },
  {
    ...desk,
    material: 'Seedbox carton',
    operation: 'through',
    daysAgo: 82,
    speed: 5,
    passes: 2,
    exposureMm: 0.6,
    bladeMetres: 200,
    cuts: [
      [16, 2],
      [20, 7],
      [24, 7],
    ],
    kept: { force: 21, reason: 'parts without crushing the crease' },
  },
];

/** A setting kept without test cuts of its force: found by eye, by folding, by pulling at tabs. */
export interface KeptStory {
  readonly material: string;
  readonly condition: ConditionKind;
  readonly machine: 'Gannet 600' | 'Dunlin desk' | 'Plover flatbed';
  readonly operation: Operation;
  readonly daysAgo: number;
  readonly author: string;
  readonly reason: string;
  readonly values: SettingValues;
}

const still = { exposureMm: 0, offsetMm: 0, overcutMm: 0 } as const;

export const KEPT: readonly KeptStory[] = [
  {
    material: 'Seedbox carton',
    condition: 'bare',
    machine: 'Dunlin desk',
    operation: 'crease',
    daysAgo: 81,
    author: 'Tove',
    reason: 'folds square, the print does not crack',
    values: { ...still, force: 24, speed: 5, passes: 1, tool: 'ball 1.5 mm' },
  },
  {
    material: 'Herringglass matt white',
    condition: 'laminated',
    machine: 'Gannet 600',
    operation: 'perforated',
    daysAgo: 33,
    author: 'Ines',
    reason: 'gull cards stay in on the roll and come out with a light push',
    values: {
      force: 235,
      exposureMm: 0.375,
      speed: 150,
      passes: 1,
      offsetMm: 0.25,
      overcutMm: 0.4,
      cutLengthMm: 14,
      tabLengthMm: 0.8,
      cornerClearanceMm: 3,
    },
  },
  {
    material: 'Harbourmaster cover',
    condition: 'bare',
    machine: 'Dunlin desk',
    operation: 'score',
    daysAgo: 76,
    author: 'Tove',
    reason: 'invitation fold, half way through',
    values: { force: 7, exposureMm: 0.2, speed: 8, passes: 1, offsetMm: 0.25, overcutMm: 0, depthShare: 0.5 },
  },
];

/** What the flatbed was set to for the boat names, by eye, in its first week. */
const flatbed = {
  material: 'Mooring vinyl, navy',
  condition: 'bare',
  machine: 'Plover flatbed',
  daysAgo: 6,
  author: 'Tove',
} as const;
const knife = { exposureMm: 0.3, speed: 60, passes: 1, offsetMm: 0.25, overcutMm: 0.4 } as const;

export const FLATBED_KEPT: readonly KeptStory[] = [
  { ...flatbed, operation: 'kiss', reason: 'weeds in one pull', values: { ...knife, force: 95 } },
  { ...flatbed, operation: 'through', reason: 'parts, the bed unmarked', values: { ...knife, force: 245 } },
];

export const EARLIER_RUNS: readonly RunStory[] = [
  [168, 'Ines', 'clean', 8, 0, ''],
  [155, 'Tove', 'clean', 8, 0, ''],
  [141, 'Ines', 'someSpoiled', 6, 2, 'two corners hung on the small gulls'],
  [122, 'Tove', 'clean', 8, 0, 'roller on every sheet now'],
  [101, 'Ines', 'clean', 8, 0, ''],
  [77, 'Ines', 'clean', 8, 0, ''],
  [58, 'Tove', 'someSpoiled', 7, 1, 'edge fuzzy, blade at its end'],
  [41, 'Ines', 'failed', 2, 6, 'hung all over; new blade fitted after it'],
].map(([daysAgo, author, verdict, piecesGood, piecesSpoiled, note]) => ({
  job: 'Tide-table stickers',
  lot: '25-K',
  daysAgo,
  author,
  verdict,
  piecesGood,
  piecesSpoiled,
  note,
})) as readonly RunStory[];

/** A revision of an older setting, made later on. */
export interface RevisionStory {
  readonly material: string;
  readonly condition: ConditionKind;
  readonly machine: 'Gannet 600' | 'Dunlin desk' | 'Plover flatbed';
  readonly operation: Operation;
  readonly daysAgo: number;
  readonly author: string;
  readonly force: number;
  readonly reason: string;
}

export const LATER_REVISIONS: readonly RevisionStory[] = [
  {
    material: 'Capstan vinyl',
    condition: 'bare',
    machine: 'Gannet 600',
    operation: 'kiss',
    daysAgo: 63,
    author: 'Tove',
    force: 80,
    reason: 'a touch more since blade no. 7 is past 150 m',
  },
  {
    material: 'Harbourmaster cover',
    condition: 'bare',
    machine: 'Dunlin desk',
    operation: 'through',
    daysAgo: 44,
    author: 'Ines',
    force: 11,
    reason: 'damp week: one level up kept the corners from hanging',
  },
];
