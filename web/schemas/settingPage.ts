import type { Material, MaterialCondition } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Blade } from '#core/station/station.ts';
import type { SettingKey, SettingRevision, ValueSources } from '#core/setting/setting.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { RevisionEvidence } from '#store/repositories/dialIn/revisionEvidence.ts';
import type { AuditReply, BenchAnswer, RelativeReply, SettingSummary } from '#web/schemas/setting.ts';

/** Everything the page of a setting shows; it is made on the server and never leaves it otherwise. */
export interface SettingPageData {
  readonly key: SettingKey;
  /** `null` before the first revision. */
  readonly summary: SettingSummary | null;
  readonly revisions: readonly SettingRevision[];
  /** What revisions kept from a dial-in rested on. */
  readonly evidence: readonly RevisionEvidence[];
  readonly material: Material;
  readonly condition: MaterialCondition;
  readonly machine: Machine;
  readonly blade: Blade | null;
  /** The newest values, or a suggestion to start from. */
  readonly start: SettingValues;
  readonly startSources: ValueSources;
  /** The kiss force of the same sheet, machine and blade, which tabs are cut at; `null` when there is none. */
  readonly kissForce: number | null;
  /** The force on the very sheet that is loaded, where its colour or lot wants another; else `null`. */
  readonly onSheet: { readonly force: number; readonly words: string } | null;
  readonly machines: readonly Machine[];
  readonly bench: BenchAnswer | null;
  readonly relatives: readonly RelativeReply[];
  readonly audit: readonly AuditReply[];
}
