import type { Machine, StandInModel } from '#core/station/machine.ts';

/** What a variant of a practice cutter changes of its machine. Every variant of one model names the same fields. */
type Fitted = Partial<Pick<Machine, 'toolSeats' | 'numbersOwner' | 'panelCuts' | 'depthScale'>>;

/** A way in which a practice cutter can be fitted out, to practise on a machine that works otherwise. */
export interface StandInVariant {
  readonly id: string;
  readonly name: string;
  /** What is different about working with it. */
  readonly words: string;
  readonly fitted: Fitted;
}

const FILE = { numbersOwner: 'file', panelCuts: 1 } as const;

const DESK_SEATS = [
  { name: 'front', holds: 'blade', tool: '45° fine' },
  { name: 'back', holds: 'crease', tool: 'ball 1.5 mm' },
] as const;

/** The ways of each practice cutter; it comes fitted out in the first. */
const STAND_IN_VARIANTS = {
  desk: [
    {
      id: 'asItCame',
      name: 'Two holders, numbers in the file',
      words: 'The blade in front, the crease tool behind. Force and speed go out with the lines.',
      fitted: { toolSeats: DESK_SEATS, ...FILE },
    },
    {
      id: 'oneHolder',
      name: 'One holder',
      words: 'You swap the crease tool for the blade when the run stops for it.',
      fitted: { toolSeats: [{ name: 'holder', holds: 'blade', tool: '45° fine' }], ...FILE },
    },
    {
      id: 'panelNumbers',
      name: 'The panel owns the numbers',
      words: 'You dial force and speed at its panel; the run stops whenever they change.',
      fitted: { toolSeats: DESK_SEATS, numbersOwner: 'panel', panelCuts: 1 },
    },
  ],
  roll: [
    {
      id: 'asItCame',
      name: 'Blade and pen, numbers in the file',
      words: 'One blade does everything. Force and speed go out with the lines.',
      fitted: {
        toolSeats: [
          { name: 'left', holds: 'blade', tool: '45° fine' },
          { name: 'right', holds: 'pen', tool: 'fine black' },
        ],
        ...FILE,
      },
    },
    {
      id: 'stripAndGroove',
      name: 'Strip, groove and four numbered cuts',
      words:
        'Kisses run over the strip, through cuts over the groove, and you move the holder. The panel holds four cuts: you dial each once, the file chooses.',
      fitted: {
        toolSeats: [
          { name: 'back', holds: 'blade', tool: '45° fine', over: 'strip' },
          { name: 'front', holds: 'empty', tool: '', over: 'groove' },
        ],
        numbersOwner: 'panel',
        panelCuts: 4,
      },
    },
  ],
  flat: [
    {
      id: 'asItCame',
      name: 'Exposure set by hand',
      words: 'You set how far the tip stands out, in steps of 0.05 mm.',
      fitted: { depthScale: { kind: 'millimetres', stepMm: 0.05, maxMm: 2 } },
    },
    {
      id: 'automaticDepth',
      name: 'Exposure set by the machine',
      words: 'The machine sets how far the tip stands out: no step asks you to.',
      fitted: { depthScale: { kind: 'automatic', stepMm: 0.05, maxMm: 2 } },
    },
  ],
} as const satisfies Readonly<Record<StandInModel, readonly StandInVariant[]>>;

/**
 * The ways in which a practice cutter can be fitted out, the one it comes in first.
 *
 * @example listVariants('desk').length // 3
 */
export function listVariants(model: StandInModel): readonly StandInVariant[] {
  return STAND_IN_VARIANTS[model];
}

/**
 * How a practice cutter comes.
 *
 * @example fittedAsItCame('desk').toolSeats.length // 2
 */
export function fittedAsItCame<Model extends StandInModel>(
  model: Model,
): (typeof STAND_IN_VARIANTS)[Model][0]['fitted'] {
  return STAND_IN_VARIANTS[model][0].fitted;
}

/**
 * Which of its ways a machine is fitted out in; `null` where somebody fitted it out otherwise.
 *
 * @example findVariant('desk', { ...machine, ...fittedAsItCame('desk') })?.id // 'asItCame'
 */
export function findVariant(model: StandInModel, machine: Machine): StandInVariant | null {
  const isSame = ({ fitted }: StandInVariant) =>
    (Object.keys(fitted) as (keyof Fitted)[]).every(
      (field) => JSON.stringify(wholeField(machine, field)) === JSON.stringify(wholeField(fitted, field)),
    );
  return listVariants(model).find(isSame) ?? null;
}

/** A field as it is compared: a panel without a number holds one, seats in one order of their facts. */
function wholeField(from: Fitted, field: keyof Fitted): unknown {
  if (field === 'panelCuts') return from.panelCuts ?? 1;
  if (field !== 'toolSeats') return from[field];
  return from.toolSeats?.map(({ name, holds, tool, over, does }) => [name, holds, tool, over, does]);
}
