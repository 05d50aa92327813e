import type { RunVerdict, SettingState, ValueSource } from '#core/setting/setting.ts';

/** So many clean runs at the current revision prove a setting. */
export const CLEAN_RUNS_TO_PROVE = 3;

/** What a setting is judged by. */
export interface SettingEvidence {
  readonly hasRevision: boolean;
  /** Where its force came from: a copied or predicted force was never cut. */
  readonly forceSource: ValueSource;
  /** Noted runs at the current revision, oldest first. */
  readonly verdicts: readonly RunVerdict[];
  /** Lots it was kept on or ran clean on, at the current revision. */
  readonly knownLots: readonly string[];
  /** The lot on the machine now, or empty. */
  readonly lotNow: string;
  /** The kind of blade it was kept with, when another kind is in the machine; else empty. */
  readonly otherBladeKind?: string;
  /** An alarm of drift that was raised after it was kept, in words; else empty. */
  readonly drift?: string;
}

/** A state with its reason in words. */
export interface Judgement {
  readonly state: SettingState;
  readonly reason: string;
}

const NEVER_CUT: ReadonlySet<ValueSource> = new Set(['model', 'copied', 'imported']);

/**
 * The state of a setting, by the first rule that holds:
 *
 * 1. never kept: predicted. 2. kept with another kind of blade: doubted. 3. cuts of the machine drift since it was
 * kept, or the last noted run failed: doubted. 4. another lot than those it worked on: doubted. 5. {@link CLEAN_RUNS_TO_PROVE} clean runs since the last failure:
 * proven. 6. force never cut (copied, imported, predicted) and no clean run: predicted. 7. otherwise tried.
 * Runs with some pieces spoiled neither prove nor doubt.
 *
 * @example judgeSetting({ hasRevision: true, forceSource: 'testCuts', verdicts: ['clean', 'clean', 'clean'], knownLots: [], lotNow: '' }).state // 'proven'
 */
export function judgeSetting(evidence: SettingEvidence): Judgement {
  const { hasRevision, forceSource, verdicts, knownLots, lotNow, otherBladeKind = '', drift = '' } = evidence;
  if (!hasRevision) return { state: 'predicted', reason: 'never cut here' };
  if (otherBladeKind) return { state: 'doubted', reason: `kept with another blade: ${otherBladeKind}` };
  if (drift) return { state: 'doubted', reason: `cuts drift on this machine: ${drift}` };
  if (verdicts.at(-1) === 'failed') return { state: 'doubted', reason: 'the last run failed' };
  if (lotNow && knownLots.length > 0 && !knownLots.includes(lotNow)) {
    return { state: 'doubted', reason: `lot ${lotNow} is new to it: it worked on ${knownLots.join(', ')}` };
  }
  const sinceFailure = verdicts.slice(verdicts.lastIndexOf('failed') + 1);
  const clean = sinceFailure.filter((verdict) => verdict === 'clean').length;
  if (clean >= CLEAN_RUNS_TO_PROVE) return { state: 'proven', reason: `${clean} clean runs` };
  if (clean === 0 && NEVER_CUT.has(forceSource)) {
    return { state: 'predicted', reason: 'its force was never cut here' };
  }
  const more = CLEAN_RUNS_TO_PROVE - clean;
  return { state: 'tried', reason: `${more} more clean ${more === 1 ? 'run proves' : 'runs prove'} it` };
}
