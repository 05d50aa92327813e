import { ROUNDING } from '#core/units/rounding.ts';
import type { Strategy } from '#core/setting/settingFields.ts';

/** Ways to free a piece. */
export const FREEING_WAYS = [
  'perforated',
  'severalLight',
  'kissRepeats',
  'oneHeavy',
] as const satisfies readonly (Strategy | 'perforated')[];
export type FreeingWay = (typeof FREEING_WAYS)[number];

/** What the ways are compared on. */
export interface FreeingOrder {
  /** Kiss force in gf, `null` on a single layer or where none is kept. */
  readonly kissGf: number | null;
  /** One heavy pass, gf. */
  readonly throughGf: number;
  readonly isRollFed: boolean;
  readonly isLayered: boolean;
  /** Card and carton: fibres bunch under a heavy pass. */
  readonly isFibrous: boolean;
  readonly outlineMm: number;
  /** Seconds of one pass along all outlines. */
  readonly passSeconds: number;
  /** Length of a tab and of a cut. */
  readonly tabLengthMm: number;
  readonly cutLengthMm: number;
  /** Highest force of the machine, gf. */
  readonly mostGf: number;
}

/** One way with what it costs and risks. */
export interface FreeingOption {
  readonly way: FreeingWay;
  readonly passes: number;
  readonly forceGf: number;
  readonly seconds: number;
  /** Blade travel counted by how hard it presses: metres of one heavy pass. */
  readonly wearMetres: number;
  /** Chance that a piece comes loose and jams or shifts, a sheet. */
  readonly jamRisk: number;
  /** 0 ragged to 1 clean. */
  readonly edge: number;
  /** Why it cannot be, or `null`. */
  readonly bar: string | null;
}

/**
 * n equal passes cut like one with n to this power times the force. Common practice, no source; agrees with T17, where
 * five kiss passes part what takes about 1.8 times the kiss force at once.
 */
export const PASS_POWER = 1 / 2.7;
const MOST_PASSES = 12;
export const LIGHT_PASSES = 2;

/**
 * How many kiss passes part what takes one pass of this force.
 *
 * @example repeatsToFree(180, 100) // 5
 */
export function repeatsToFree(throughGf: number, kissGf: number): number {
  return Math.max(2, Math.ceil((throughGf / kissGf) ** (1 / PASS_POWER) - ROUNDING));
}

/**
 * Each way to free the pieces of a job, and the pick with its reason.
 *
 * @example compareFreeing({ kissGf: null, throughGf: 200, isRollFed: false, isLayered: false, isFibrous: false, outlineMm: 400, passSeconds: 10, tabLengthMm: 0.5, cutLengthMm: 10, mostGf: 500 }).options[0].forceGf // 200
 */
export function compareFreeing(order: FreeingOrder): {
  readonly options: readonly FreeingOption[];
  readonly pick: FreeingWay;
  readonly reason: string;
} {
  const options = FREEING_WAYS.map((way) => weigh(way, order));
  const { isRollFed, isLayered, isFibrous } = order;
  const canBe = (way: FreeingWay) => options.some((option) => option.way === way && option.bar === null);
  const pick: readonly [FreeingWay, string] =
    isRollFed && canBe('perforated')
      ? ['perforated', 'on a roll-fed machine tabs keep every piece in the sheet until it is out']
      : isFibrous && canBe('severalLight')
        ? ['severalLight', 'card cuts cleanest in two light passes; a heavy one bunches the fibres']
        : isLayered &&
            canBe('kissRepeats') &&
            (options.find(({ way }) => way === 'kissRepeats')?.passes ?? 9) <= 5
          ? ['kissRepeats', 'the kiss force repeated parts the stack with no change of force']
          : canBe('oneHeavy')
            ? ['oneHeavy', 'the sheet lies on a mat that holds it: one pass is quickest']
            : ['severalLight', 'one pass would take more force than the machine has'];
  return { options, pick: pick[0], reason: pick[1] };
}

function weigh(way: FreeingWay, order: FreeingOrder): FreeingOption {
  const passes = passesOf(way, order);
  const forceGf =
    way === 'kissRepeats'
      ? (order.kissGf ?? 0)
      : order.throughGf / (way === 'severalLight' ? passes ** PASS_POWER : 1);
  const tabShare = order.tabLengthMm / (order.tabLengthMm + order.cutLengthMm);
  const metres = order.outlineMm / 1000;
  const pressed = (forceGf / order.throughGf) ** 1.5;
  const bar = barOf(way, order, passes, forceGf);
  return {
    way,
    passes,
    forceGf,
    seconds: order.passSeconds * passes * (way === 'perforated' ? 1.15 : 1),
    wearMetres: way === 'perforated' ? metres * (1 - tabShare * 0.6) : metres * passes * pressed,
    jamRisk: jamRiskOf(way, order),
    edge: { perforated: 0.75, severalLight: 0.95, kissRepeats: 0.9, oneHeavy: order.isFibrous ? 0.6 : 0.85 }[
      way
    ],
    bar,
  };
}

function passesOf(way: FreeingWay, { kissGf, throughGf }: FreeingOrder): number {
  if (way === 'severalLight') return LIGHT_PASSES;
  if (way !== 'kissRepeats' || kissGf === null) return 1;
  return repeatsToFree(throughGf, kissGf);
}

function barOf(way: FreeingWay, order: FreeingOrder, passes: number, forceGf: number): string | null {
  if (way === 'kissRepeats' && order.kissGf === null) return 'there is no kiss setting';
  if (way === 'kissRepeats' && passes > MOST_PASSES) return `it would take ${passes} passes`;
  if (forceGf > order.mostGf)
    return `it takes ${Math.round(forceGf)} gf; the machine gives ${Math.round(order.mostGf)}`;
  return null;
}

/** Loose pieces under rollers jam; on a mat they may shift. Common practice, no source (T8). */
function jamRiskOf(way: FreeingWay, { isRollFed }: FreeingOrder): number {
  const loose = isRollFed ? 0.3 : 0.03;
  return { perforated: loose * 0.06, severalLight: loose * 0.8, kissRepeats: loose * 0.7, oneHeavy: loose }[
    way
  ];
}
