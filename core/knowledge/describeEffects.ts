import { factsOf, type Family } from '#core/stack/families/families.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { bladeOf, listSharedEffects, machineOf } from '#core/knowledge/sharedEffects.ts';
import { choleskyOf, invertCholesky } from '#core/threshold/numerics/cholesky.ts';
import type { BeliefName, Priors } from '#core/threshold/thresholdPriors.ts';

/** One effect of the knowledge as people read it: how much more force, before and after what was seen. */
export interface EffectReading {
  readonly name: string;
  readonly label: string;
  readonly group: 'machines' | 'families' | 'sheet' | 'cutting' | 'shape';
  /** In ln force (or in the effect's own unit for shapes): middle and standard deviation. */
  readonly mean: number;
  readonly sd: number;
  readonly priorMean: number;
  readonly priorSd: number;
  /** Share of the prior's variance that the book has removed, 0 to 1. */
  readonly learnt: number;
  /** A whole sentence. */
  readonly words: string;
}

const LABELS: Readonly<Record<string, readonly [string, EffectReading['group']]>> = {
  faceCaliper: ['thicker face', 'sheet'],
  ink: ['printed face', 'sheet'],
  laminate: ['25 µm of laminate', 'sheet'],
  darkness: ['black instead of pale', 'sheet'],
  gapLiner: ['room below: thicker liner', 'shape'],
  gapFace: ['room below: thicker face', 'shape'],
  reachPartial: ['from first mark to hanging', 'shape'],
  reachHanging: ['from hanging to free', 'shape'],
  scored: ['unmarked share of the liner', 'shape'],
  gouged: ['lightly marked share', 'shape'],
  breached: ['holding share', 'shape'],
  matLayered: ['parted to scarred, layered', 'shape'],
  matSingle: ['parted to scarred, single layer', 'shape'],
  passes: ['twice the passes', 'cutting'],
  wear: ['a blade at 500 m', 'cutting'],
  speed: ['twice the speed', 'cutting'],
};

/**
 * The knowledge in words: each shared effect with what was believed before and what the book has taught.
 *
 * @param machineNames by id
 * @param trialsOf trials per machine id, for the sentence
 * @example describeEffects(fitKnowledge([{ ...place, trials }]), COMMON_PRIORS, new Map([[1, 'Skua']]), new Map([[1, 3]]))[0].group // 'families'
 */
export function describeEffects(
  knowledge: Knowledge,
  priors: Priors,
  machineNames: ReadonlyMap<number, string>,
  trialsOf: ReadonlyMap<number, number>,
): readonly EffectReading[] {
  const size = knowledge.names.length;
  const lower = choleskyOf(Float64Array.from(knowledge.information), size);
  const covariance = lower ? invertCholesky(lower, size) : null;
  const ids = [...machineNames.keys()];
  const kinds = knowledge.names.flatMap((name) => bladeOf(name) ?? []);
  const sharedEffects = listSharedEffects(ids, priors, new Set(ids), kinds);
  return knowledge.names.flatMap((name, index) => {
    const place = sharedEffects.places.get(name);
    if (place === undefined || !covariance) return [];
    const [label, group] = labelOf(name, machineNames);
    const mean = (knowledge.mean[index] as number) + (knowledge.shift?.[name] ?? 0);
    const sd = Math.sqrt(covariance[index * size + index] as number);
    const priorSd = sharedEffects.sd[place] as number;
    const reading = {
      name,
      label,
      group,
      mean,
      sd,
      priorMean: sharedEffects.mean[place] as number,
      priorSd,
      learnt: Math.max(0, 1 - (sd / priorSd) ** 2),
    };
    return [{ ...reading, words: wordEffect(reading, trialsOf) }];
  });
}

/**
 * What an effect is called, and among which it stands.
 *
 * @example labelOf('ink', new Map())[0] // 'printed face'
 */
export function labelOf(
  name: string,
  machineNames: ReadonlyMap<number, string>,
): readonly [string, EffectReading['group']] {
  const bladeKind = bladeOf(name);
  if (bladeKind !== null) return [`a ${bladeKind} blade`, 'cutting'];
  const [kind, rest = ''] = name.split(':');
  if (kind === 'machine') return [machineNames.get(Number(rest)) ?? `machine ${rest}`, 'machines'];
  const of = machineNames.get(Number(rest)) ?? `machine ${rest}`;
  if (kind === 'levels') return [`${of}, whose levels nobody weighed,`, 'machines'];
  if (kind === 'bend') return [`${of}: how its levels rise`, 'shape'];
  if (kind === 'family') return [factsOf(rest as Family).name, 'families'];
  if (kind === 'gap') return [`room below the face: ${factsOf(rest as Family).name}`, 'shape'];
  return LABELS[name as BeliefName] ?? [name, 'shape'];
}

/**
 * What an effect does to the force, as a factor: machines count against it, wear and haste by their usual amount.
 *
 * @example forceFactorOf('wear', 0) // 1
 */
export function forceFactorOf(name: string, value: number): number {
  if (name === 'passes') return Math.exp(-value * Math.LN2);
  if (name === 'wear' || name === 'speed') return Math.exp(value * Math.LN2);
  if (name.startsWith('machine:') || name.startsWith('levels:')) return Math.exp(-value);
  if (name === 'faceCaliper') return Math.exp(value * Math.log(1.2));
  return Math.exp(value);
}

function wordEffect(reading: Omit<EffectReading, 'words'>, trialsOf: ReadonlyMap<number, number>): string {
  const { name, label, group, mean, sd, learnt } = reading;
  const percent = Math.round((forceFactorOf(name, mean) - 1) * 100);
  const sdLn = Math.log(forceFactorOf(name, mean + sd) / forceFactorOf(name, mean));
  const spread = Math.max(1, Math.round(100 * Math.abs(sdLn)));
  const change =
    percent === 0 ? 'no other force' : `${Math.abs(percent)} % ${percent > 0 ? 'more' : 'less'} force`;
  const known = learnt < 0.1 ? 'still the usual belief' : `± ${spread} %, learnt here`;
  if (group === 'machines') {
    const trials = trialsOf.get(machineOf(name) ?? 0) ?? 0;
    const than =
      percent === 0
        ? 'wants what its scale says'
        : `wants ${change.replace(' force', '')} than its scale says`;
    return `${label} ${than} (± ${spread} %), from ${trials} ${trials === 1 ? 'trial' : 'trials'}.`;
  }
  if (group === 'families') {
    return `${label}: the face comes free at ${Math.round(Math.exp(mean) * 100)} % of the usual force (${known}).`;
  }
  if (group === 'shape') return `${label}: ${known}.`;
  const what = name === 'faceCaliper' ? 'A face a fifth thicker' : label[0]?.toUpperCase() + label.slice(1);
  return `${what} wants ${change} (${known}).`;
}
