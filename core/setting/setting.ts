import type { Operation } from '#core/stack/operation.ts';
import type { SettingField, SettingValues } from '#core/setting/settingFields.ts';

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
  readonly operation: Operation;
}
