import { itemAt } from '#core/collections/itemAt.ts';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { localOf, mapMaterial, parametersOf } from '#core/knowledge/materialFit.ts';
import { listEffectsOf } from '#core/knowledge/sharedEffects.ts';
import { withSpreads } from '#core/knowledge/withSpreads.ts';
import { CARELESSNESS } from '#core/threshold/sheetModel/misjudging.ts';
import type { Readers } from '#core/threshold/trial.ts';
import { COMMON_PRIORS, type Priors } from '#core/threshold/thresholdPriors.ts';

/** People are believed usual readers within this, in ln, until many of their grades say otherwise. */
const PRIOR_SD = 0.5;

/**
 * Learns from a fitted book how carelessly each person reads: their grades against what the fit expects, for each
 * carelessness there can be, with a prior that a few grades do not move.
 *
 * @example learnReaders([{ ...place, trials }], fitKnowledge([{ ...place, trials }])) // {}
 */
export function learnReaders(
  book: readonly EvidenceSheet[],
  fitted: Knowledge,
  given: Priors = COMMON_PRIORS,
): Readers {
  const priors = withSpreads(given, fitted.spreads);
  const shared = listEffectsOf(book, priors);
  const mean = Float64Array.from(shared.names, (name) => fitted.mean[fitted.names.indexOf(name)] ?? 0);
  const sums = new Map<string, number[]>();
  for (const sheet of book) {
    const named = sheet.trials.filter(({ reader }) => reader);
    if (named.length === 0) continue;
    const material = mapMaterial([sheet], shared, priors);
    const own = fitted.own[String(sheet.materialId)] ?? {};
    const local = localOf(
      material.touched,
      mean,
      Float64Array.from(material.ownNames, (name) => own[name] ?? 0),
    );
    const mapped = itemAt(material.sheets, 0);
    const parameters = parametersOf(mapped, local);
    for (const trial of named) {
      const logs = sums.get(trial.reader as string) ?? CARELESSNESS.map(() => 0);
      CARELESSNESS.forEach((carelessness, place) => {
        const prepared = mapped.likelihood.prepare(trial, { [trial.reader as string]: carelessness });
        logs[place] = itemAt(logs, place) + mapped.likelihood.value([prepared], parameters);
      });
      sums.set(trial.reader as string, logs);
    }
  }
  return Object.fromEntries([...sums].map(([reader, logs]) => [reader, middleOf(logs)]));
}

/** The posterior mean of ln carelessness, as a carelessness. */
function middleOf(logs: readonly number[]): number {
  const whole = logs.map(
    (log, place) => log - 0.5 * (Math.log(CARELESSNESS[place] as number) / PRIOR_SD) ** 2,
  );
  const most = Math.max(...whole);
  const weights = whole.map((log) => Math.exp(log - most));
  const sum = weights.reduce((a, b) => a + b, 0);
  const ln = weights.reduce(
    (mean, weight, place) => mean + weight * Math.log(CARELESSNESS[place] as number),
    0,
  );
  return Number(Math.exp(ln / sum).toFixed(3));
}
