import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { ConditionKind } from '#core/stack/material.ts';

/** A setting as a file of the book says it: everything by name, so that it means the same in another book. */
export interface BookSetting {
  readonly maker: string;
  readonly material: string;
  readonly state: ConditionKind;
  readonly machine: string;
  readonly blade: string;
  readonly operation: Operation;
  /** What the file says; what it leaves out stays as it is, or is suggested for a new setting. */
  readonly values: Partial<SettingValues> & Pick<SettingValues, 'force' | 'speed'>;
  readonly reason: string;
  readonly author: string;
  /** ISO 8601, UTC; empty when the file does not say. */
  readonly keptAt: string;
}
