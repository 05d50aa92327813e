import { CREASE_QUANTITY, holdIndex, pressIndex, TAB_QUANTITY, tabForHold } from '#core/dialIn/quantities.ts';
import { fitSimple, predictSimple, type SimpleTrial } from '#core/dialIn/simpleOrdinal.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { forceToGf, gfOf, listForces } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  listJudgedPieces,
  type Given,
  type JudgedQuantity,
} from '#store/repositories/dialIn/judgedPieces.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

/** Tab lengths to choose from, mm: what a blade can still place. */
const TABS_MM = Array.from({ length: 36 }, (_, index) => Number((0.3 + index * 0.1).toFixed(1)));

export const operationOf = (quantity: JudgedQuantity): Operation =>
  quantity === 'tabs' ? 'perforated' : 'crease';

/** What the judged pieces of the loaded sheet say, and what to try next. */
export async function answerJudged(
  store: Store,
  station: LoadedStation,
  quantity: JudgedQuantity,
): Promise<JudgedReply> {
  const { machine, loaded } = station;
  const [pieces, own, kiss] = await Promise.all([
    listJudgedPieces(store, loaded.condition.id, machine.id, quantity),
    findLoadedSetting(store, station, operationOf(quantity)),
    findLoadedSetting(store, station, 'kiss'),
  ]);
  const model = quantity === 'tabs' ? TAB_QUANTITY : CREASE_QUANTITY;
  const posterior = fitSimple(model, trialsOf(pieces, machine));
  const kept = perforationOf(own?.revision.values ?? {});
  const cutLengthMm = lastCutLength(pieces.at(-1)?.given) ?? kept.cutLengthMm;
  const choices = listChoices(quantity, machine, cutLengthMm);
  const curve = choices.map(({ value, given }) => ({
    value,
    given,
    chances: predictSimple(model, posterior, indexOf(given, machine)),
  }));
  const best = curve.reduce((a, b) => ((b.chances[2] ?? 0) > (a.chances[2] ?? 0) ? b : a));
  return {
    quantity,
    steps: model.steps,
    pieces,
    proposal: best.given,
    chances: best.chances,
    curve: curve.map(({ value, chances }) => ({ value, chances })),
    settingId: own?.id ?? null,
    revision: own?.revision.revision ?? 0,
    kissForce: kiss?.revision.values.force ?? null,
  };
}

/** Judged pieces as their model reads them. */
export function trialsOf(
  pieces: readonly { readonly given: Given; readonly seen: number }[],
  machine: Machine,
): readonly SimpleTrial[] {
  return pieces.map(({ given, seen }) => ({ index: indexOf(given, machine), seen }));
}

function indexOf(given: Given, machine: Machine): number {
  return 'tabLengthMm' in given
    ? holdIndex(given.tabLengthMm, given.cutLengthMm)
    : pressIndex(gfOf(given.force, machine.forceScale), given.passes);
}

function lastCutLength(given: Given | undefined): number | null {
  return given && 'cutLengthMm' in given ? given.cutLengthMm : null;
}

function listChoices(
  quantity: JudgedQuantity,
  { forceScale }: Machine,
  cutLengthMm: number,
): readonly { readonly value: number; readonly given: Given }[] {
  if (quantity === 'tabs') {
    return TABS_MM.filter((tab) => tab <= tabForHold(2.2, cutLengthMm)).map((tabLengthMm) => ({
      value: tabLengthMm,
      given: { tabLengthMm, cutLengthMm },
    }));
  }
  const forces = listForces(forceScale).filter((force) => forceToGf(force, forceScale) >= 40);
  const stride = Math.max(1, Math.ceil(forces.length / 60));
  return forces
    .filter((_, index) => index % stride === 0)
    .map((force) => ({ value: force, given: { force, passes: 1 } }));
}
