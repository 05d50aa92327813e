import { itemAt } from '#core/collections/itemAt.ts';
import type { JobDesign } from '#core/job/layOutJob.ts';
import { joinDrawings, type JobPart, type JoinedDrawings, type ReadArtwork } from '#core/job/joinDrawings.ts';
import { sizeFactorOf } from '#core/job/sizeJob.ts';
import { placedBox, type Layout, type Placement } from '#core/sheet/layout.ts';

type Design = Pick<
  JobDesign,
  'format' | 'source' | 'roles' | 'lineRoles' | 'edits' | 'moreDrawings' | 'layout' | 'sheet'
>;

/**
 * The layout after roles, mends or drawings changed. Drawing by drawing: what lies whole stays where its middle is,
 * unless a mend such as a frame made it reach over the usable area: then it moves back in, where it fits. Pieces that
 * lie by themselves are told by their lines: when a drawing falls into other pieces, or pieces of another size, none of
 * their places can be trusted, and they are taken off the sheet.
 *
 * @param formerOf the number a drawing had before
 * @example fitLayout(() => drawing, job, job).placements.length // 1
 */
export function fitLayout(
  read: ReadArtwork,
  before: Design,
  after: Design,
  formerOf: (number: number) => number = (number) => number,
): Layout {
  const { layout } = after;
  if (before.layout.placements.length === 0 && Object.keys(before.layout.quantities).length === 0) {
    return layout;
  }
  const [old, fresh] = [joinDrawings(before, read), joinDrawings(after, read)];
  const moved = movedPieces({ before, after, old, fresh, formerOf });
  const isSame =
    old.pieces.length === fresh.pieces.length && old.pieces.every((_, at) => moved.get(at) === at);
  const kept = isSame ? layout : renumber(layout, moved);
  const isMended = (part: JobPart) =>
    part.isWhole &&
    part.number !== null &&
    editsOf(before, formerOf(part.number)) !== editsOf(after, part.number);
  // Roles alone make nothing larger.
  const mended = fresh.parts.filter(isMended);
  return mended.length === 0 ? kept : moveInside(kept, after.sheet, fresh, mended);
}

interface Change {
  readonly before: Design;
  readonly after: Design;
  readonly old: JoinedDrawings;
  readonly fresh: JoinedDrawings;
  readonly formerOf: (number: number) => number;
}

/** What pieces are called now, by what they were called; what is gone is not in it. */
function movedPieces({ before, after, old, fresh, formerOf }: Change): ReadonlyMap<number, number> {
  const moved = new Map<number, number>();
  for (const part of fresh.parts) {
    const former = part.number === null ? null : formerOf(part.number);
    const was = old.parts.find(({ number }) => number === former);
    if (!was || was.isWhole !== part.isWhole || was.pieces.length !== part.pieces.length) continue;
    const isAlike = part.number === null ? isSameCard(before, after) : part.isWhole || areSame(was, part);
    const isSized =
      part.number !== null &&
      !part.isWhole &&
      sizeFactorOf(editsOf(before, former ?? 0)) !== sizeFactorOf(editsOf(after, part.number));
    if (!isAlike || isSized) continue;
    for (const { index } of part.pieces) moved.set(was.first.piece + index, part.first.piece + index);
  }
  return moved;
}

function areSame(was: JobPart, is: JobPart): boolean {
  return was.pieces.every(({ lineIds }, at) => lineIds.join() === itemAt(is.pieces, at).lineIds.join());
}

function isSameCard({ layout: { carrier: a } }: Design, { layout: { carrier: b } }: Design): boolean {
  return a?.widthMm === b?.widthMm && a?.heightMm === b?.heightMm;
}

function editsOf({ edits, moreDrawings = [] }: Design, number: number): Design['edits'] {
  return number === 0 ? edits : (moreDrawings.find((one) => one.number === number)?.edits ?? []);
}

function renumber(layout: Layout, moved: ReadonlyMap<number, number>): Layout {
  const placements = layout.placements.flatMap((placement): readonly Placement[] => {
    const piece = moved.get(placement.piece);
    return piece === undefined ? [] : [{ ...placement, piece }];
  });
  const quantities = Object.entries(layout.quantities).flatMap(([piece, count]) => {
    const to = moved.get(Number(piece));
    return to === undefined ? [] : [[to, count] as const];
  });
  return { ...layout, placements, quantities: Object.fromEntries(quantities) };
}

/** Every copy of a whole drawing moved as little as brings it inside; as it lies where it fits already, or never will. */
function moveInside(
  layout: Layout,
  { marginMm, widthMm, heightMm }: Design['sheet'],
  { pieces }: JoinedDrawings,
  parts: readonly JobPart[],
): Layout {
  const own = new Set(parts.map(({ first }) => first.piece));
  const placements = layout.placements.map((placement) => {
    if (!own.has(placement.piece)) return placement;
    const box = placedBox(placement, pieces);
    if (!box) return placement;
    const byX = shiftInto(box.minX, box.maxX, marginMm, widthMm - marginMm);
    const byY = shiftInto(box.minY, box.maxY, marginMm, heightMm - marginMm);
    return byX === 0 && byY === 0
      ? placement
      : { ...placement, xMm: placement.xMm + byX, yMm: placement.yMm + byY };
  });
  const isMoved = placements.some((placement, index) => placement !== layout.placements[index]);
  return isMoved ? { ...layout, placements } : layout;
}

/** How far a stretch must move to lie in another; 0 where it does, or is longer. */
function shiftInto(from: number, to: number, least: number, most: number): number {
  if (to - from > most - least) return 0;
  return from < least ? least - from : Math.min(0, most - to);
}
