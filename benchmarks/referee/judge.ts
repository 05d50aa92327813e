import type { Priors } from '#core/threshold/thresholdPriors.ts';
import type { SheetBelief } from '#core/threshold/trial.ts';
import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { EvidenceSheet, SheetPlace } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { learnReaders } from '#core/knowledge/learnReaders.ts';
import { integrateOwn } from '#core/knowledge/integrateOwn.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import { spreadForces } from '#core/threshold/spreadForces.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { countCovered } from '#benchmarks/referee/strategies.ts';
import { READER, staircase, type Outcome, type Task } from '#core/practice/ways.ts';
import { drawMachine, type TrueMachine } from '#core/practice/hiddenMachine.ts';
import {
  drawHabits,
  drawSheet,
  harmChance,
  seeCut,
  trueChance,
  windowRatio,
} from '#core/practice/hiddenSheet.ts';
import type { World } from '#core/practice/worlds.ts';

/** One strategy's name and how it deals with a sheet. */
export interface Contender {
  readonly name: string;
  readonly isWarm: boolean;
  /** What is believed beforehand; the common beliefs where nothing is said. */
  readonly priors?: Priors | undefined;
  readonly play: (task: Task, belief: SheetBelief, seed: number) => Outcome;
}

export interface Score {
  readonly name: string;
  readonly sheets: number;
  readonly cuts: number;
  readonly loads: number;
  readonly mean: number;
  readonly tenth: number;
  readonly shareGood: number;
  readonly coverage: number | null;
  readonly msPerProposal: number | null;
  /** Cuts that spoiled a liner or scarred a mat, by their true chance: in a whole search, and of the first cut alone. */
  readonly harm: number;
  readonly firstHarm: number | null;
  /** What is claimed of the kept force, and what is true: means. */
  readonly claimed: number | null;
  readonly real: number;
  /** Of the keeps that claim more than .9, the share that is truly under .7. */
  readonly sureButWrong: number | null;
  /** Mean P over the sheets whose window is narrower than 8 %. */
  readonly narrow: number | null;
  readonly byFamily: ReadonlyMap<string, number>;
}

const SHEETS_OF_HISTORY = 20;
const NARROW = 1.08;

export interface Dealt {
  readonly place: SheetPlace;
  readonly task: Omit<Task, 'random'>;
  readonly best: number;
  readonly knowledge: Knowledge;
  readonly wanted: readonly DepthGrade[];
}

/** Workshops of two machines, each with a history of 20 sheets a machine, and sheets nobody has cut yet. */
export function dealSheets(
  workshops: number,
  sheetsPerMachine: number,
  world: World,
  seed: number,
  sheetsOfHistory = SHEETS_OF_HISTORY,
): readonly Dealt[] {
  const random = seededRandom(seed);
  return Array.from({ length: workshops }, (_, workshop) => {
    const machines = [
      drawMachine(workshop * 2 + 1, random, world),
      drawMachine(workshop * 2 + 2, random, world),
    ];
    const habits = drawHabits(world, random);
    let material = 0;
    const draw = (machine: TrueMachine) => {
      material += 1;
      const sheet = drawSheet(machine, world, random, habits);
      const isLayered = sheet.grades.length === 9;
      const operation = isLayered && random() < 0.7 ? ('kiss' as const) : ('through' as const);
      const forcesGf = listDistinct(machine);
      const { told: traits } = sheet;
      const place = {
        traits,
        materialId: material,
        machineId: machine.id,
        isScaleGuessed: machine.isScaleGuessed,
        condition: 'bare',
        lot: '',
        colour: '',
        bladeKind: sheet.bladeKind,
      };
      return { place, task: { sheet, operation, world, forcesGf } };
    };
    const history = machines.flatMap((machine) =>
      Array.from({ length: sheetsOfHistory }, (): EvidenceSheet => {
        const { place, task } = draw(machine);
        const { trials } = staircase({ ...task, random });
        const last = trials.at(-1);
        const again = last ? [{ ...last, grade: seeCut(task.sheet, last.forceGf, world, random) }] : [];
        return { ...place, trials: [...trials, ...again].map((trial) => ({ ...trial, reader: READER })) };
      }),
    );
    const first = fitKnowledge(history);
    const readers = learnReaders(history, first);
    const spreads = learnSpreads(history, { ...first, readers });
    const second = fitKnowledge(history, { start: first, spreads, readers });
    const knowledge = { ...second, shift: integrateOwn(history, second)?.shift ?? {}, nextReaders: readers };
    return machines.flatMap((machine) =>
      Array.from({ length: sheetsPerMachine }, (): Dealt => {
        const { place, task } = draw(machine);
        const wanted = targetGrades(task.operation, task.sheet.grades.length === 9) as readonly DepthGrade[];
        const best = Math.max(...task.forcesGf.map((force) => trueChance(task.sheet, wanted, force)));
        return { place, task, best, knowledge, wanted };
      }),
    );
  }).flat();
}

/** Lets one strategy deal with every sheet; each sheet has its own chance, the same for every strategy. */
export function judge(contender: Contender, dealt: readonly Dealt[], seed: number): Score {
  const ratios: number[] = [];
  const families = new Map<string, number[]>();
  let cuts = 0;
  let loads = 0;
  const covered: boolean[] = [];
  const proposals: number[] = [];
  const keeps: Keep[] = [];
  dealt.forEach(({ place, task, best, knowledge, wanted }, index) => {
    const belief = sheetPrior(place, contender.isWarm ? knowledge : null, undefined, contender.priors);
    const outcome = contender.play({ ...task, random: seededRandom(seed + index) }, belief, seed + index);
    const real = trueChance(task.sheet, wanted, outcome.keptGf);
    const ratio = real / best;
    ratios.push(ratio);
    const harms = outcome.trials.map(({ forceGf }) => harmChance(task.sheet, wanted, forceGf));
    keeps.push({
      real,
      ratio,
      claimed: outcome.claimed,
      harm: harms.reduce((sum, harm) => sum + harm, 0),
      firstHarm: harms[0] ?? null,
      isNarrow: windowRatio(task.sheet, wanted) < NARROW,
    });
    families.set(place.traits.family, [...(families.get(place.traits.family) ?? []), ratio]);
    cuts += outcome.cuts;
    loads += outcome.loads;
    if (outcome.posterior) covered.push(...countCovered({ ...task, random: Math.random }, outcome.posterior));
    proposals.push(...outcome.proposalMs);
  });
  const sorted = ratios.toSorted((a, b) => a - b);
  return {
    name: contender.name,
    sheets: dealt.length,
    cuts: cuts / dealt.length,
    loads: loads / dealt.length,
    mean: meanOf(ratios),
    tenth: sorted[Math.floor(sorted.length / 10)] ?? 0,
    shareGood: ratios.filter((ratio) => ratio >= 0.9).length / ratios.length,
    coverage: covered.length === 0 ? null : covered.filter(Boolean).length / covered.length,
    msPerProposal: proposals.length === 0 ? null : meanOf(proposals),
    ...weighKeeps(keeps),
    byFamily: new Map([...families].map(([family, values]) => [family, meanOf(values)])),
  };
}

/** How one search ended. */
interface Keep {
  readonly real: number;
  readonly ratio: number;
  readonly claimed: number | null;
  readonly harm: number;
  readonly firstHarm: number | null;
  readonly isNarrow: boolean;
}

function weighKeeps(keeps: readonly Keep[]) {
  const meanOr = (values: readonly number[]) => (values.length === 0 ? null : meanOf(values));
  const sure = keeps.filter(({ claimed }) => (claimed ?? 0) > 0.9);
  return {
    harm: meanOf(keeps.map(({ harm }) => harm)),
    firstHarm: meanOr(keeps.flatMap(({ firstHarm }) => firstHarm ?? [])),
    claimed: meanOr(keeps.flatMap(({ claimed }) => claimed ?? [])),
    real: meanOf(keeps.map(({ real }) => real)),
    sureButWrong: sure.length === 0 ? null : sure.filter(({ real }) => real < 0.7).length / sure.length,
    narrow: meanOr(keeps.filter(({ isNarrow }) => isNarrow).map(({ ratio }) => ratio)),
  };
}

/** The mean of at least one value. */
export function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** The forces of a machine in gf, without steps too fine for any cut to show: as the application thins them too. */
function listDistinct({ scale }: TrueMachine): readonly number[] {
  const axis = { fromGf: forceToGf(scale.min, scale), toGf: forceToGf(scale.max, scale) };
  return spreadForces(axis, scale);
}
