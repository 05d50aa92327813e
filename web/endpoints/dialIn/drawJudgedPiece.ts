import { composeCard, measureCard, type TestCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { AppError } from '#core/errors/appError.ts';
import { valuesOnSheet } from '#core/setting/correctForce.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import type { LoadedStation } from '#core/station/station.ts';
import { snapForce } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import type { JudgedQuantity } from '#store/repositories/dialIn/judgedPieces.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import type { JudgedPieceQuery } from '#web/schemas/judgedPieces.ts';

/** A piece to be judged as it is cut: where it lies on a rest just large enough, and with what. */
export interface DrawnPiece {
  readonly card: TestCard;
  readonly sheet: { readonly widthMm: number; readonly heightMm: number };
  /** The tab force is the kiss force; `undefined` on a single layer, where tabs are left whole. */
  readonly values: SettingValues;
}

/** What presses a crease or cuts through where nothing was kept, gf. Common practice, no source. */
const USUAL_GF = 300;

/**
 * A perforated piece of its real size or a crease strip, with the figures that the loaded sheet wants.
 *
 * @throws AppError `badInput` for a perforation without a through cut
 */
export async function drawJudgedPiece(
  store: Store,
  station: LoadedStation,
  quantity: JudgedQuantity,
  asked: Omit<JudgedPieceQuery, 'format'>,
): Promise<DrawnPiece> {
  const { loaded, machine, blade } = station;
  const isTabs = quantity === 'tabs';
  const [base, kiss, perforated] = await Promise.all([
    findLoadedSetting(store, station, isTabs ? 'through' : 'crease'),
    findLoadedSetting(store, station, 'kiss'),
    findLoadedSetting(store, station, 'perforated'),
  ]);
  if (isTabs && !base) {
    throw new AppError('badInput', 'find the through cut first: the piece is freed with it');
  }
  const { tabForce: _, ...start } = base
    ? valuesOnSheet(base.revision.values, machine, loaded)
    : suggestValues(loaded.material, loaded.condition, machine, blade, 'through', USUAL_GF).values;
  const tabs = isTabs ? tabsLike(perforated?.revision.values, kiss?.revision.values) : undefined;
  const tabForce = tabs && valuesOnSheet(tabs, machine, loaded).force;
  const piece = makeTestPiece(isTabs ? 'coupon' : 'crease', asked);
  const force = snapForce(isTabs ? start.force : (asked.force ?? start.force), machine.forceScale);
  const cell = { force, speed: start.speed, passes: isTabs ? start.passes : asked.passes };
  const margin = machine.marginMm;
  const { widthMm, heightMm } = measureCard(piece, 1);
  return {
    card: composeCard(piece, [cell], { x: margin, y: margin }),
    sheet: { widthMm: widthMm + 2 * margin, heightMm: heightMm + 2 * margin },
    values: { ...start, ...(tabForce === undefined ? {} : { tabForce }) },
  };
}

/** Values whose force is that of the tabs: their own where the perforation has it, else the kiss; none where they are left. */
function tabsLike(
  perforated: SettingValues | undefined,
  kiss: SettingValues | undefined,
): SettingValues | undefined {
  if (perforated?.tabWay === 'lifted') return undefined;
  const isOwn = perforated?.tabWay === 'ownForce' && perforated.tabForce !== undefined;
  return isOwn ? { ...perforated, force: perforated.tabForce } : kiss;
}
