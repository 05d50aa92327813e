import { groupBy } from '#core/collections/groupBy.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import type { Stroke } from '#core/passes/plan.ts';
import { estimateHolding, type TabPiece, type TabSheet } from '#core/perforation/holding.ts';

/** A perforated piece as its strokes draw it. */
export type Perforated = Pick<TabPiece, 'tabs' | 'areaMm2'>;

/** Strokes of one outline that lie further apart leave a tab between them. */
const LIFTED_MM = 0.05;

type Drawn = Pick<Stroke, 'contourId' | 'repeat' | 'points' | 'isTab' | 'ownTabs'>;

/**
 * Tabs and area of every perforated piece.
 *
 * @example listPerforated({ strokes: [] }) // []
 */
export function listPerforated({ strokes }: { readonly strokes: readonly Drawn[] }): readonly Perforated[] {
  const pieces = groupBy(
    strokes.filter(({ repeat }) => repeat === 0),
    ({ contourId }) => contourId,
  );
  return [...pieces.values()]
    .map((piece) => ({
      tabs: countTabs(piece),
      areaMm2: Math.abs(signedAreaMm2(piece.flatMap(({ points }) => points))),
    }))
    .filter(({ tabs }) => tabs > 0);
}

/** Tabs that are pressed, that the machine makes by itself, or that are left where the tool is lifted. */
function countTabs(piece: readonly Drawn[]): number {
  return piece.reduce((sum, { isTab, ownTabs, points }, index) => {
    const own = ownTabs?.stretches?.filter((stretch) => stretch.isTab).length ?? 0;
    const before = itemAt(piece, (index + piece.length - 1) % piece.length).points.at(-1);
    // An outline that runs on past its start ends on its own first stroke.
    const isLifted = piece.length > 1 && before !== undefined && distanceToWay(before, points) > LIFTED_MM;
    return sum + own + (isTab || isLifted ? 1 : 0);
  }, 0);
}

/**
 * The piece that comes loose first; `undefined` without any.
 *
 * @example weakestPiece([{ tabs: 20, areaMm2: 900 }, { tabs: 6, areaMm2: 900 }], 1, tabSheet).tabs // 6
 */
export function weakestPiece(
  pieces: readonly Perforated[],
  tabLengthMm: number,
  sheet: TabSheet,
): Perforated | undefined {
  const hold = (piece: Perforated) => estimateHolding({ ...piece, tabLengthMm }, sheet).holdIndex;
  return [...pieces].sort((a, b) => hold(a) - hold(b))[0];
}
