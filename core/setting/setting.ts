import type { Operation } from '#core/stack/depthGrade.ts';
import type { ScaleValue } from '#core/units/forceScale.ts';

/** The values that a machine is set to for one operation. Force and speed are on the machine's own scales. */
export interface SettingValues {
  readonly force: ScaleValue;
  readonly exposureMm: number;
  readonly speed: number;
  readonly passes: number;
  readonly offsetMm: number;
  readonly overcutMm: number;
}

export type SettingField = keyof SettingValues;

/** Where a value came from. */
export const VALUE_SOURCES = ['testCuts', 'stack', 'blade', 'machine', 'person', 'model'] as const;
export type ValueSource = (typeof VALUE_SOURCES)[number];

/** How far a setting can be trusted. The rules are in judgeSetting. */
export type SettingState = 'predicted' | 'tried' | 'proven' | 'doubted';

/** What happened at the machine with a setting. */
export const RUN_VERDICTS = ['clean', 'someSpoiled', 'failed'] as const;
export type RunVerdict = (typeof RUN_VERDICTS)[number];

/** One kept revision. Never changed once written. */
export interface SettingRevision {
  readonly revision: number;
  readonly values: SettingValues;
  readonly sources: Readonly<Record<SettingField, ValueSource>>;
  readonly author: string;
  readonly reason: string;
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
