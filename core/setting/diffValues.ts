import { FIELDS, type SettingField, type SettingValues } from '#core/setting/settingFields.ts';

/** One field that differs between two revisions. */
export interface ValueChange {
  readonly field: SettingField;
  readonly before: SettingValues[SettingField];
  readonly after: SettingValues[SettingField];
}

/**
 * What changed from one set of values to another, in reading order; empty when nothing did.
 *
 * @example diffValues(values, { ...values, force: 95 }) // [{ field: 'force', before: 90, after: 95 }]
 */
export function diffValues(before: SettingValues, after: SettingValues): readonly ValueChange[] {
  return FIELDS.filter((field) => before[field] !== after[field]).map((field) => ({
    field,
    before: before[field],
    after: after[field],
  }));
}

/** Two people's work on one setting, put together as far as it can be. */
export interface MergedValues {
  readonly values: SettingValues;
  /** Fields that both changed, to different values: theirs stand in `values` until a person decides. */
  readonly conflicts: readonly (ValueChange & { readonly mine: SettingValues[SettingField] })[];
}

/**
 * Merges my values into theirs, both changed from the same base: what only one of us changed is taken over.
 *
 * @example mergeValues(values, { ...values, force: 95 }, { ...values, speed: 80 }).values.force // 95
 */
export function mergeValues(base: SettingValues, theirs: SettingValues, mine: SettingValues): MergedValues {
  const ours = diffValues(base, mine);
  const their = new Map(diffValues(base, theirs).map((change) => [change.field, change]));
  const isMine = ({ field }: ValueChange) => !their.has(field);
  const values = {
    ...theirs,
    ...Object.fromEntries(ours.filter(isMine).map(({ field, after }) => [field, after])),
  };
  const conflicts = ours
    .filter((change) => !isMine(change) && theirs[change.field] !== change.after)
    .map(({ field, before, after }) => ({ field, before, after: theirs[field], mine: after }));
  return { values, conflicts };
}
