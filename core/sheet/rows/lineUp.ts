import { groupBy } from '#core/collections/groupBy.ts';
import { growBox, overlap, type BoxMm } from '#core/geometry/box.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { affineOf, turnBox } from '#core/sheet/layout.ts';
import type { RowRoom } from '#core/sheet/rows/fillRows.ts';
import type { BinPlace } from '#core/sheet/rows/rowPieces.ts';

/**
 * Rows of equal pieces brought to one left edge, where something that must stay free pushed one of them aside: sheets are
 * then cut apart by straight strokes. A row that has no room to move stays, and with it all of its bin.
 *
 * @param box of a piece
 * @example lineUp([], { minX: 0, minY: 0, maxX: 9, maxY: 9 }, { box: { minX: 0, minY: 0, maxX: 99, maxY: 99 }, taken: [], spacingMm: 2 }) // []
 */
export function lineUp(places: readonly BinPlace[], box: BoxMm, room: RowRoom): readonly BinPlace[] {
  return [...groupBy(places, ({ bin }) => bin).values()].flatMap((own) => {
    const rows = [...groupBy(own, ({ yMm }) => yMm).values()];
    const leftOf = (row: readonly BinPlace[]) =>
      Math.min(...row.map((place) => turnBox(box, affineOf(box, place)).minX));
    const left = Math.max(...rows.map(leftOf));
    const moved = rows.flatMap((row) => {
      const by = left - leftOf(row);
      return row.map((place) => ({ ...place, xMm: place.xMm + by }));
    });
    return moved.every((place) => isFree(turnBox(box, affineOf(box, place)), room)) ? moved : own;
  });
}

function isFree(box: BoxMm, { box: room, taken }: RowRoom): boolean {
  const inner = growBox(box, -LENGTH_MM);
  const isInside =
    inner.minX >= room.minX && inner.maxX <= room.maxX && inner.minY >= room.minY && inner.maxY <= room.maxY;
  return isInside && !taken.some((one) => overlap(one, inner));
}
