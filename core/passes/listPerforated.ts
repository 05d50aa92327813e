import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Stroke } from '#core/passes/plan.ts';
import { estimateHolding, type TabPiece, type TabSheet } from '#core/perforation/holding.ts';

/** A perforated piece as its strokes draw it. */
export type Perforated = Pick<TabPiece, 'tabs' | 'areaMm2'>;

type Drawn = Pick<Stroke, 'contourId' | 'repeat' | 'points' | 'isTab' | 'ownTabs'>;

/**
 * Tabs and area of every perforated piece.
 *
 * @example listPerforated({ strokes: [] }) // []
 */
export function listPerforated({ strokes }: { readonly strokes: readonly Drawn[] }): readonly Perforated[] {
  const pieces = new Map<number, { tabs: number; points: PointMm[] }>();
  for (const { contourId, repeat, points, isTab, ownTabs } of strokes) {
    if (repeat > 0) continue;
    const piece = pieces.get(contourId) ?? { tabs: 0, points: [] };
    if (isTab) piece.tabs++;
    piece.tabs += ownTabs?.stretches?.filter((stretch) => stretch.isTab).length ?? 0;
    piece.points.push(...points);
    pieces.set(contourId, piece);
  }
  return [...pieces.values()]
    .filter(({ tabs }) => tabs > 0)
    .map(({ tabs, points }) => ({ tabs, areaMm2: Math.abs(signedAreaMm2(points)) }));
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
