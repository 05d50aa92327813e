import Flatbush from 'flatbush';
import { boundPoints, joinBoxes, type BoxMm } from '#core/geometry/box.ts';
import { nestRings, offsetRings, subtractRings, uniteRings, type Rings } from '#core/geometry/clip.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import type { PointMm } from '#core/geometry/point.ts';

/** A piece that outlines cut, counters left out, and the band around it that its ink goes on in. */
export interface BleedBand {
  readonly piece: Rings;
  /** Beyond its outline and into its counters, never nearer to a neighbour than to itself. */
  readonly band: Rings;
}

/** Where two pieces would both bleed, the line between them is found to this part of the bleed. */
const STEPS = 8;

/**
 * How far the ink of every piece goes on: by the bleed, outwards and into counters alike, but no further than the middle
 * of the gap to its neighbour, so that no ink reaches into another piece.
 *
 * @param outlines closed cut lines without their last point; one inside another is a counter
 * @param bleedMm above 0
 * @example bleedBands([square], 1)[0].band.length // 2
 */
export function bleedBands(outlines: Rings, bleedMm: number): readonly BleedBand[] {
  const pieces = nestRings(outlines);
  const boxes = pieces.map((piece) => joinBoxes(piece.map(boundPoints)));
  const near = findNear(boxes, 2 * bleedMm);
  const steps = Array.from({ length: STEPS }, (_, step) => (bleedMm * (step + 1)) / STEPS);
  const grown = new Map<string, Rings>();
  const grow = (index: number, byMm: number): Rings => {
    const key = `${index}/${byMm}`;
    const known = grown.get(key) ?? offsetRings(pieces[index] as Rings, byMm);
    grown.set(key, known);
    return known;
  };
  return pieces.map((piece, index): BleedBand => {
    const around = subtractRings(grow(index, bleedMm), piece);
    // What lies within a step of a neighbour and not within it of this piece is nearer to the neighbour.
    const others = near(index).flatMap((other) => [
      ...(pieces[other] as Rings),
      ...steps.flatMap((byMm) => subtractRings(grow(other, byMm), grow(index, byMm))),
    ]);
    return { piece, band: others.length === 0 ? around : subtractRings(around, uniteRings(others)) };
  });
}

/**
 * The narrowest gap between cut lines of different pieces: bleed wider than half of it would meet the neighbour's.
 *
 * @param outlines closed cut lines without their last point
 * @param withinMm wider gaps are not looked for
 * @returns `null` where every piece stands apart by more
 * @example narrowestGap([square], 5) // null
 */
export function narrowestGap(outlines: Rings, withinMm: number): number | null {
  const pieces = nestRings(outlines);
  const near = findNear(
    pieces.map((piece) => joinBoxes(piece.map(boundPoints))),
    withinMm,
  );
  let least = Infinity;
  pieces.forEach((piece, index) => {
    for (const other of near(index)) {
      if (other > index) least = Math.min(least, gapBetween(piece, pieces[other] as Rings));
    }
  });
  return least <= withinMm ? least : null;
}

/** Of lines that do not cross, the nearest points are a corner of one and a place of the other. */
function gapBetween(a: Rings, b: Rings): number {
  return Math.min(reach(a, b), reach(b, a));
}

function reach(from: Rings, to: Rings): number {
  const ways = to.map((ring) => [...ring, ring[0] as PointMm]);
  return from
    .flat()
    .reduce(
      (least, point) => ways.reduce((own, way) => Math.min(own, distanceToWay(point, way)), least),
      Infinity,
    );
}

/** The places of the boxes within a distance of one. */
function findNear(boxes: readonly BoxMm[], withinMm: number): (index: number) => readonly number[] {
  if (boxes.length === 0) return () => [];
  const tree = new Flatbush(boxes.length);
  for (const { minX, minY, maxX, maxY } of boxes) tree.add(minX, minY, maxX, maxY);
  tree.finish();
  return (index) => {
    const { minX, minY, maxX, maxY } = boxes[index] as BoxMm;
    const found = tree.search(minX - withinMm, minY - withinMm, maxX + withinMm, maxY + withinMm);
    return found.filter((other) => other !== index);
  };
}
