/** What can go wrong during a run. */
export const RISK_KINDS = ['jam', 'shift', 'marks', 'whiteEdge', 'matSlip', 'tear'] as const;
export type RiskKind = (typeof RISK_KINDS)[number];

export const RISK_WORDS: Readonly<Record<RiskKind, string>> = {
  jam: 'Jam',
  shift: 'Piece shifts',
  marks: 'Marks not read',
  whiteEdge: 'White edge',
  matSlip: 'Slips',
  tear: 'Tears',
};

/** One cause, and its chance of spoiling a sheet by itself. */
export interface RiskCause {
  readonly words: string;
  readonly chance: number;
}

export interface Risk {
  readonly kind: RiskKind;
  /** Chance that a sheet is spoiled by it, 0 to 1. */
  readonly chance: number;
  /** The largest first. */
  readonly causes: readonly RiskCause[];
}

/** What the risks are seen from. */
export interface RiskOrder {
  readonly isRollFed: boolean;
  readonly isFibrous: boolean;
  /** Outlines cut through all round. */
  readonly throughOutlines: number;
  /** Chances that the weakest perforated piece falls out, or only just hangs; `null` without any. */
  readonly loose: { readonly fallsOut: number; readonly hangs: number } | null;
  /** How well the mat holds, and the least that this sheet wants; `null` without a mat. */
  readonly mat: { readonly tack: number; readonly wanted: number } | null;
  readonly isSlick: boolean;
  /** Thicker than most that rollers grip well. */
  readonly isThick: boolean;
  /** How much light the sheet throws back, 0 to 1, and what may be taken for a mark; `null` without marks. */
  readonly marks: { readonly glare: number; readonly troubles: number } | null;
  readonly whiteEdge: number;
  /** Share of its life the blade has behind it, or `null` when unknown. */
  readonly wornShare: number | null;
  /** Share of the highest speed at which the freeing pass runs. */
  readonly speedShare: number;
  readonly isFinestTooFine: boolean;
  readonly breaksOrder: boolean;
}

/** How often a piece that came free spoils the sheet, and how often one that only hangs comes free. Common practice, no source. */
const LOOSE_SPOILS = { rolls: 0.8, mat: 0.4 };
const HANGING_GOES = 0.15;
/** How often a sheet that shines like a mirror is not read. Common practice, no source (T19). */
const GLARE_BLINDS = 0.3;
/** How often a sheet slips on a mat just below what it wants, and how much more for each point. Common practice, no source. */
const SLIP_AT_EDGE = 0.03;
const SLIP_PER_TACK = 0.01;

/**
 * The chance of each trouble on one sheet with its causes. Causes add as if each struck by itself: the sheet is spared
 * when none does. Every figure here is common practice, no source, until runs teach better.
 *
 * @example estimateRisks({ isRollFed: false, isFibrous: false, throughOutlines: 0, loose: null, mat: null, isSlick: false, isThick: false, marks: null, whiteEdge: 0, wornShare: null, speedShare: 0.2, isFinestTooFine: false, breaksOrder: false }).length // 6
 */
export function estimateRisks(order: RiskOrder): readonly Risk[] {
  const { loose, marks } = order;
  const free = loose === null ? 0 : loose.fallsOut + HANGING_GOES * loose.hangs;
  const dull = Math.max(0, (order.wornShare ?? 0.3) - 0.7);
  const lackingTack = order.mat ? order.mat.wanted - order.mat.tack : 0;
  const causes: Readonly<Record<RiskKind, readonly (RiskCause | null)[]>> = {
    jam: [
      cause(
        'outlines cut through all round may fall out',
        order.isRollFed && order.throughOutlines > 0,
        0.28,
      ),
      cause('tabs that hardly hold', order.isRollFed, LOOSE_SPOILS.rolls * free),
      cause('anything loose under the rollers', order.isRollFed, 0.005),
    ],
    shift: [
      cause('pieces freed before all is cut', order.breaksOrder, 0.2),
      cause('tabs that hardly hold', !order.isRollFed, LOOSE_SPOILS.mat * free),
      cause('freed pieces on the mat', !order.isRollFed && order.throughOutlines > 0, 0.01),
    ],
    marks: [
      cause(
        'a sheet that throws light back at the sensor',
        marks !== null,
        GLARE_BLINDS * (marks?.glare ?? 0),
      ),
      cause(
        'what lies beside the marks, or a landscape sheet',
        marks !== null,
        0.08 * (marks?.troubles ?? 0),
      ),
    ],
    whiteEdge: [
      cause('print and cut lie further apart than bleed or rim', order.whiteEdge > 0, order.whiteEdge),
    ],
    matSlip: [
      cause(
        `a mat that holds ${order.mat?.tack} where this sheet wants ${order.mat?.wanted}`,
        lackingTack > 0,
        SLIP_AT_EDGE + SLIP_PER_TACK * lackingTack,
      ),
      cause('a slick liner on a mat', order.mat !== null && order.isSlick, 0.04),
      cause('a slick liner under the rollers', order.isRollFed && order.isSlick, 0.03),
      cause('a thick sheet under the rollers', order.isRollFed && order.isThick, 0.02),
    ],
    tear: [
      cause('detail finer than the material bears', order.isFinestTooFine, 0.15),
      cause('a blade near its end', dull > 0, 0.4 * dull),
      cause(
        'fibres at high speed',
        order.isFibrous && order.speedShare > 0.5,
        0.1 * (order.speedShare - 0.5),
      ),
    ],
  };
  return RISK_KINDS.map((kind) => {
    const own = causes[kind].filter((one) => one !== null).sort((a, b) => b.chance - a.chance);
    return { kind, causes: own, chance: 1 - own.reduce((spared, { chance }) => spared * (1 - chance), 1) };
  });
}

function cause(words: string, applies: boolean, chance: number): RiskCause | null {
  return applies && chance > 0 ? { words, chance: Math.min(0.95, chance) } : null;
}
