import type { RunVerdict, SettingState } from '#core/setting/setting.ts';

/** So many clean runs at the current revision prove a setting. */
export const CLEAN_RUNS_TO_PROVE = 3;

/**
 * The state of a setting from the runs noted at its current revision, oldest first.
 *
 * No revision: predicted. Last noted run failed: doubted. At least {@link CLEAN_RUNS_TO_PROVE} clean runs since the
 * last failure: proven. Otherwise: tried. Runs with some pieces spoiled neither prove nor doubt.
 *
 * @example judgeSetting(true, ['clean', 'clean', 'clean']) // 'proven'
 * @example judgeSetting(true, ['clean', 'clean', 'clean', 'failed']) // 'doubted'
 */
export function judgeSetting(hasRevision: boolean, verdicts: readonly RunVerdict[]): SettingState {
  if (!hasRevision) return 'predicted';
  if (verdicts.at(-1) === 'failed') return 'doubted';
  const sinceFailure = verdicts.slice(verdicts.lastIndexOf('failed') + 1);
  return sinceFailure.filter((verdict) => verdict === 'clean').length >= CLEAN_RUNS_TO_PROVE
    ? 'proven'
    : 'tried';
}
