import { factsOf, type Family } from '#core/stack/families/families.ts';

/** What a sheet waits for. */
export const WAIT_KINDS = [
  'inkDry',
  'sealerCoat',
  'sealerCures',
  'laminateSettles',
  'transferRests',
  'pressRests',
  'conditioning',
] as const;
export type WaitKind = (typeof WAIT_KINDS)[number];

export const WAIT_WORDS: Readonly<Record<WaitKind, string>> = {
  inkDry: 'ink dries to the touch',
  sealerCoat: 'between coats of sealer',
  sealerCures: 'sealer cures before cutting',
  laminateSettles: 'laminate settles',
  transferRests: 'ink on the transfer film rests before it is masked',
  pressRests: 'the pressed print rests before it is washed',
  conditioning: 'damp card comes to the room',
};

/** Which step of the work a wait comes before. */
export type WaitPlace = 'cut' | 'mask' | 'wash';
const PLACES: Readonly<Partial<Record<WaitKind, WaitPlace>>> = { transferRests: 'mask', pressRests: 'wash' };

/**
 * What a wait comes before: cutting, but for what rests once it is cut or pressed.
 *
 * @example placeOfWait('transferRests') // 'mask'
 */
export function placeOfWait(kind: WaitKind): WaitPlace {
  return PLACES[kind] ?? 'cut';
}

/** What a wait is asked for. */
export interface WaitQuestion {
  readonly family: Family;
  /** As the pack says: matt, gloss, clear … */
  readonly finish: string;
}

/** A wait with where its length comes from. */
export interface Wait {
  readonly kind: WaitKind;
  readonly minutes: number;
  readonly source: 'maker' | 'usual';
  readonly reason: string;
}

/** A length that the maker's sheet, or the workshop, gives for one material. */
export type WaitsOfMaterial = Readonly<Partial<Record<WaitKind, number>>>;

interface UsualWait {
  readonly minutes: (question: WaitQuestion) => number;
  readonly reason: string;
}

const CLEAR_MINUTES = 120;

/** Usual lengths, common practice, no source: the maker's sheet comes first wherever it says one. */
const USUAL: Readonly<Record<WaitKind, UsualWait>> = {
  inkDry: {
    minutes: ({ family, finish }) => {
      if (/clear/i.test(finish)) return CLEAR_MINUTES;
      const { matt, gloss } = factsOf(family).inkDryMin;
      return /gloss|holo/i.test(finish) ? gloss : matt;
    },
    reason: 'wet ink drags, and rollers print it on; clear film dries slowest',
  },
  sealerCoat: { minutes: () => 30, reason: 'a second coat on a wet one runs and hides the marks' },
  sealerCures: { minutes: () => 240, reason: 'soft sealer gums the blade up' },
  laminateSettles: { minutes: () => 30, reason: 'the film creeps back for a while and shifts the cut' },
  transferRests: {
    minutes: () => 24 * 60,
    reason: 'masked or pressed too soon, the ink comes off with the tape',
  },
  pressRests: { minutes: () => 24 * 60, reason: 'washed too soon, it lets go at the edges' },
  conditioning: { minutes: () => 12 * 60, reason: 'card that took water tears and curls' },
};

/**
 * How long a sheet waits, by the maker's sheet where it says so.
 *
 * @example findWait('inkDry', { family: 'stickerPaper', finish: 'matt' }, {}).minutes // 10
 */
export function findWait(kind: WaitKind, question: WaitQuestion, ofMaterial: WaitsOfMaterial): Wait {
  const said = ofMaterial[kind];
  const { minutes, reason } = USUAL[kind];
  return said === undefined
    ? { kind, minutes: minutes(question), source: 'usual', reason }
    : { kind, minutes: said, source: 'maker', reason };
}

/**
 * Time left of a wait, whole minutes, 0 when it is over. @param endsAt ISO
 * @example minutesLeft('2027-01-01T10:30:00Z', new Date('2027-01-01T10:00:30Z')) // 30
 */
export function minutesLeft(endsAt: string, now: Date): number {
  return Math.max(0, Math.ceil((Date.parse(endsAt) - now.getTime()) / 60_000));
}
