import { CREASE_QUANTITY, pressIndex } from '#core/dialIn/quantities.ts';
import { fitSimple, predictSimple, type SimpleQuantity } from '#core/dialIn/simpleOrdinal.ts';
import {
  bestTab,
  fitTabs,
  type JudgedTabs,
  listTabs,
  pieceOf,
  TAB_QUANTITY,
  tabSheetOf,
} from '#core/perforation/tabModel.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { gfOf, listForces } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import type { KeptSetting } from '#store/repositories/book/settings.ts';
import {
  listJudgedPieces,
  type Given,
  type GivenCrease,
  type JudgedPiece,
  type JudgedQuantity,
} from '#store/repositories/dialIn/judgedPieces.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

export const operationOf = (quantity: JudgedQuantity): Operation =>
  quantity === 'tabs' ? 'perforated' : 'crease';

/** What the judged pieces of the loaded sheet say, and what to try next. */
export async function answerJudged(
  store: Store,
  station: LoadedStation,
  quantity: JudgedQuantity,
): Promise<JudgedReply> {
  const { machine, loaded } = station;
  const [pieces, own, through, kiss] = await Promise.all([
    listJudgedPieces(store, loaded.condition.id, machine.id, quantity),
    findLoadedSetting(store, station, operationOf(quantity)),
    findLoadedSetting(store, station, 'through'),
    findLoadedSetting(store, station, 'kiss'),
  ]);
  const answer =
    quantity === 'tabs' ? answerTabs(station, pieces, own, through) : answerCrease(machine, pieces, own);
  return {
    quantity,
    ...answer,
    pieces,
    settingId: own?.id ?? null,
    revision: own?.revision.revision ?? 0,
    kissForce: kiss?.revision.values.force ?? null,
  };
}

interface JudgedAnswer extends Pick<JudgedReply, 'proposal' | 'chances' | 'curve'> {
  readonly steps: SimpleQuantity['steps'];
}

function answerTabs(
  station: LoadedStation,
  pieces: readonly JudgedPiece[],
  own: KeptSetting | null,
  through: KeptSetting | null,
): JudgedAnswer {
  const { machine, loaded, blade } = station;
  const { force } =
    (own ?? through)?.revision.values ??
    suggestValues(loaded.material, loaded.condition, machine, blade, 'through', USUAL_THROUGH_GF).values;
  const sheet = tabSheetOf(machine, loaded, force);
  const posterior = fitTabs(tabPieces(pieces), sheet);
  const last = pieces.at(-1)?.given;
  const { cutLengthMm, tabLengthMm } =
    last && 'tabLengthMm' in last ? last : perforationOf(own?.revision.values ?? {});
  // The next piece is as large as the one before.
  const { tabs, areaMm2 } = pieceOf(last && 'tabLengthMm' in last ? last : { tabLengthMm, cutLengthMm });
  const perimeterMm = tabs * (tabLengthMm + cutLengthMm);
  const choices = listTabs({ perimeterMm, areaMm2, cutLengthMm }, sheet, posterior);
  const best = bestTab(choices);
  return {
    steps: TAB_QUANTITY.steps,
    proposal: { tabLengthMm: best?.tabLengthMm ?? 1, cutLengthMm },
    chances: best?.chances ?? [],
    curve: choices.map(({ tabLengthMm, chances }) => ({ value: tabLengthMm, chances })),
  };
}

/** What pulls at tabs where no through cut was found yet, gf. Common practice, no source. */
const USUAL_THROUGH_GF = 300;

/** Those of the judged pieces that had tabs. */
export function tabPieces(pieces: readonly Pick<JudgedPiece, 'given' | 'seen'>[]): readonly JudgedTabs[] {
  return pieces.flatMap(({ given, seen }) => ('tabLengthMm' in given ? [{ given, seen }] : []));
}

/** Another pass is proposed where it is right this much more often than the passes of the last piece. */
const WORTH_A_PASS = 0.1;
const CREASE_PASSES = [1, 2, 3, 4, 5];

function answerCrease(
  { forceScale }: Machine,
  pieces: readonly JudgedPiece[],
  own: KeptSetting | null,
): JudgedAnswer {
  const index = ({ force, passes }: GivenCrease) => pressIndex(gfOf(force, forceScale), passes);
  const trials = pieces.flatMap(({ given, seen }) =>
    'passes' in given ? [{ index: index(given), seen }] : [],
  );
  const posterior = fitSimple(CREASE_QUANTITY, trials);
  const last = pieces.at(-1)?.given;
  const usualPasses = last && 'passes' in last ? last.passes : (own?.revision.values.passes ?? 1);
  const curveOf = (passes: number) =>
    creaseForces({ forceScale }).map((force) => {
      const given = { force, passes };
      return {
        value: force,
        given,
        chances: predictSimple(CREASE_QUANTITY, posterior, { index: index(given) }),
      };
    });
  const right = (choice: { readonly chances: readonly number[] } | undefined) => choice?.chances[2] ?? 0;
  const bestAt = (passes: number) => {
    const curve = curveOf(passes);
    return { curve, best: curve.reduce((a, b) => (right(b) > right(a) ? b : a)) };
  };
  const now = bestAt(usualPasses);
  const other = CREASE_PASSES.map(bestAt).find(({ best }) => right(best) > right(now.best) + WORTH_A_PASS);
  const { curve, best } = other ?? now;
  return {
    steps: CREASE_QUANTITY.steps,
    proposal: best.given satisfies Given,
    chances: best.chances,
    curve: curve.map(({ value, chances }) => ({ value, chances })),
  };
}

/** So many points show a curve. */
const MOST_POINTS = 60;
/** Less than this presses no fold, gf. Common practice, no source. */
const LEAST_CREASE_GF = 40;

function creaseForces({ forceScale }: Pick<Machine, 'forceScale'>): readonly number[] {
  const all = listForces(forceScale);
  const pressing = all.filter((force) => gfOf(force, forceScale) >= LEAST_CREASE_GF);
  // A machine too light for any fold is shown what its most would do.
  const forces = pressing.length > 0 ? pressing : all.slice(-1);
  const stride = Math.max(1, Math.ceil(forces.length / MOST_POINTS));
  return forces.filter((_, index) => index % stride === 0);
}
