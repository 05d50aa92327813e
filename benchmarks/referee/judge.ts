import { sheetPrior } from '#core/knowledge/sheetPrior.ts';
import type { EvidenceSheet, SheetPlace } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { learnSpreads } from '#core/knowledge/learnSpreads.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { targetGrades, type DepthGrade } from '#core/stack/depthGrade.ts';
import type { NormalPrior } from '#core/threshold/numerics/normalPrior.ts';
import { spreadForces } from '#core/threshold/spreadForces.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { countCovered, staircase, type Outcome, type Task } from '#benchmarks/referee/strategies.ts';
import {
  drawMachine,
  drawSheet,
  seeCut,
  trueChance,
  type TrueMachine,
  type World,
} from '#benchmarks/referee/truth.ts';

/** One strategy's name and how it deals with a sheet. */
export interface Contender {
  readonly name: string;
  readonly isWarm: boolean;
  readonly play: (task: Task, belief: NormalPrior, seed: number) => Outcome;
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
  readonly byFamily: ReadonlyMap<string, number>;
}

const SHEETS_OF_HISTORY = 20;

interface Dealt {
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
): readonly Dealt[] {
  const random = seededRandom(seed);
  return Array.from({ length: workshops }, (_, workshop) => {
    const machines = [drawMachine(workshop * 2 + 1, random), drawMachine(workshop * 2 + 2, random)];
    let material = 0;
    const draw = (machine: TrueMachine) => {
      material += 1;
      const sheet = drawSheet(machine, world, random);
      const isLayered = sheet.grades.length === 9;
      const operation = isLayered && random() < 0.7 ? ('kiss' as const) : ('through' as const);
      const forcesGf = listDistinct(machine);
      const { told: traits } = sheet;
      const place = {
        traits,
        materialId: material,
        machineId: machine.id,
        condition: 'bare',
        lot: '',
        colour: '',
      };
      return { place, task: { sheet, operation, world, forcesGf } };
    };
    const history = machines.flatMap((machine) =>
      Array.from({ length: SHEETS_OF_HISTORY }, (): EvidenceSheet => {
        const { place, task } = draw(machine);
        const { trials } = staircase({ ...task, random });
        const last = trials.at(-1);
        const again = last ? [{ ...last, grade: seeCut(task.sheet, last.forceGf, world, random) }] : [];
        return { ...place, trials: [...trials, ...again] };
      }),
    );
    const first = fitKnowledge(history);
    const spreads = learnSpreads(history, first);
    const knowledge = fitKnowledge(history, { start: first, spreads });
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
  dealt.forEach(({ place, task, best, knowledge, wanted }, index) => {
    const belief = sheetPrior(place, contender.isWarm ? knowledge : null);
    const outcome = contender.play({ ...task, random: seededRandom(seed + index) }, belief, seed + index);
    const ratio = trueChance(task.sheet, wanted, outcome.keptGf) / best;
    ratios.push(ratio);
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
    byFamily: new Map([...families].map(([family, values]) => [family, meanOf(values)])),
  };
}

function meanOf(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** The forces of a machine in gf, without steps too fine for any cut to show: as the application thins them too. */
function listDistinct({ scale }: TrueMachine): readonly number[] {
  const axis = { fromGf: forceToGf(scale.min, scale), toGf: forceToGf(scale.max, scale) };
  return spreadForces(axis, scale);
}
