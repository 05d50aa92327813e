import { itemAt } from '#core/collections/itemAt.ts';
import type { CardStroke, TestCard } from '#core/dialIn/testCard.ts';
import type { Stroke } from '#core/passes/plan.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';

/** The contour that the figures of a card are counted under: no cell's. */
export const FIGURES = -1;

/** A pass of a card: one cell, or its tabs, at one force and speed. */
export interface CardPass {
  readonly values: SettingValues;
  readonly strokes: readonly Stroke[];
}

/**
 * The passes of a card, a force after the other. A stroke's contour is its cell, counted from 0. Figures are cut with
 * the gentlest cell, so that they mark without falling out.
 *
 * @param values everything but force, speed and passes, which each cell has its own of
 * @param tabForce for tabs; `null` where no file can change the force along them: the tool is lifted over them
 * @example cardPasses(testCard, values, null).length === testCard.cells.length // true
 */
export function cardPasses(
  card: TestCard,
  values: SettingValues,
  tabForce: number | null,
): readonly CardPass[] {
  const gentlest = card.cells.reduce(
    (best, { force }, cell) => (force < itemAt(card.cells, best).force ? cell : best),
    0,
  );
  const figures = card.strokes.filter(({ isLabel }) => isLabel);
  return card.cells.flatMap(({ force, speed, passes }, cell) => {
    const own = card.strokes.filter((stroke) => stroke.cell === cell && !stroke.isLabel);
    const perPass = own.length / passes;
    const strokesOf = (wanted: (stroke: CardStroke) => boolean): readonly Stroke[] =>
      own.flatMap((stroke, index) => {
        const repeat = Math.floor(index / perPass);
        return wanted(stroke)
          ? [{ contourId: cell, repeat, points: stroke.points, isTab: stroke.isTab }]
          : [];
      });
    const at = (given: number, strokes: readonly Stroke[]): readonly CardPass[] =>
      strokes.length === 0
        ? []
        : [{ values: { ...values, force: given, tabForce: given, speed, passes: 1 }, strokes }];
    const labels = (cell === gentlest ? figures : []).map(({ points }): Stroke => ({
      contourId: FIGURES,
      repeat: 0,
      points,
      isTab: false,
    }));
    return [
      ...(tabForce === null
        ? []
        : at(
            tabForce,
            strokesOf(({ isTab }) => isTab),
          )),
      ...at(force, [...strokesOf(({ isTab }) => !isTab), ...labels]),
    ];
  });
}
