import type { ScaleValue } from '#core/units/forceScale.ts';

/** Operations that the book keeps settings for. Kiss and through are found by test cuts; the others build on them. */
export const SETTING_OPERATIONS = ['kiss', 'through', 'perforated', 'score', 'crease'] as const;
export type SettingOperation = (typeof SETTING_OPERATIONS)[number];

/** The words for each operation. */
export const OPERATION_WORDS: Readonly<Record<SettingOperation, string>> = {
  kiss: 'Kiss',
  through: 'Through',
  perforated: 'Perforated',
  score: 'Score',
  crease: 'Crease',
};

/** Ways of freeing a piece: both heavy and light are right on different sheets. */
export const STRATEGIES = ['oneHeavy', 'severalLight', 'kissRepeats'] as const;
export type Strategy = (typeof STRATEGIES)[number];

/** The values that a machine is set to for one operation. Force and speed are on the machine's own scales. */
export interface SettingValues {
  readonly force: ScaleValue;
  readonly exposureMm: number;
  readonly speed: number;
  readonly passes: number;
  readonly offsetMm: number;
  readonly overcutMm: number;
  /** Through: how the stack is parted. */
  readonly strategy?: Strategy | undefined;
  /** Perforated: force along the tabs, always the kiss force. */
  readonly tabForce?: ScaleValue | undefined;
  /** Perforated: length cut through and length left, mm, and how far tabs keep from corners, mm. */
  readonly cutLengthMm?: number | undefined;
  readonly tabLengthMm?: number | undefined;
  readonly cornerClearanceMm?: number | undefined;
  /** Score: share of the layer that is cut, 0 to 1. */
  readonly depthShare?: number | undefined;
  /** Crease: the tool that presses the line. */
  readonly tool?: string | undefined;
}

export type SettingField = keyof SettingValues;

/** Where a value came from. */
export const VALUE_SOURCES = [
  'testCuts',
  'stack',
  'blade',
  'machine',
  'person',
  'model',
  'copied',
  'imported',
  'kiss',
] as const;
export type ValueSource = (typeof VALUE_SOURCES)[number];

/** The words for each source. */
export const SOURCE_WORDS: Readonly<Record<ValueSource, string>> = {
  testCuts: 'test cuts',
  stack: 'the stack',
  blade: 'the blade',
  machine: 'the machine',
  person: 'set by hand',
  model: 'a prediction',
  copied: 'copied through grams',
  imported: 'read from a file',
  kiss: 'the kiss force',
};

export type ValueSources = Readonly<Partial<Record<SettingField, ValueSource>>>;

/** How far a setting can be trusted. The rules are in judgeSetting. */
export const SETTING_STATES = ['predicted', 'tried', 'proven', 'doubted'] as const;
export type SettingState = (typeof SETTING_STATES)[number];

/** What happened at the machine with a setting. */
export const RUN_VERDICTS = ['clean', 'someSpoiled', 'failed'] as const;
export type RunVerdict = (typeof RUN_VERDICTS)[number];

/** One kept revision. Never changed once written. */
export interface SettingRevision {
  readonly revision: number;
  readonly values: SettingValues;
  readonly sources: ValueSources;
  readonly author: string;
  readonly reason: string;
  /** The lot that was loaded when it was kept, or empty. */
  readonly lot: string;
  /** ISO 8601, UTC. */
  readonly at: string;
}

/** What a setting is for. */
export interface SettingKey {
  readonly conditionId: number;
  readonly machineId: number;
  readonly bladeKind: string;
  readonly operation: SettingOperation;
}
