import { itemAt } from '#core/collections/itemAt.ts';
import { factsOf, type Family } from '#core/stack/families/families.ts';
import { smoothRings } from '#core/checks/applyEdits.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import type { CutLine } from '#core/checks/cutLine.ts';
import { type CheckFacts, type Trouble } from '#core/checks/trouble.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { boundPoints, middleOf } from '#core/geometry/box.ts';
import { areaOfRings, offsetRings, subtractRings, type Rings } from '#core/geometry/clip.ts';
import { distanceMm } from '#core/geometry/point.ts';
import { turnAlike } from '#core/geometry/polygon.ts';

/** A lost part below this is the rounding of a corner, in squares of the finest width. */
const LOST_SHARE = 0.6;
/** A direction that turns back by more than this is a spike, radians. */
const SPIKE_RAD = (150 * Math.PI) / 180;

/**
 * Parts of closed outlines that are narrower than the material bears, and turns the blade cannot make.
 *
 * @example checkFineness([], facts) // []
 */
export function checkFineness(
  lines: readonly CutLine[],
  facts: CheckFacts,
  onProgress?: (share: number) => void,
): readonly Trouble[] {
  const widthMm = factsOf(facts.family).finestMm;
  const closed = lines.filter(({ isClosed, role }) => isClosed && role !== 'crease');
  return [
    ...closed.flatMap((line, index) => {
      if (index % 200 === 0) onProgress?.(index / closed.length);
      return findNarrow(line, widthMm);
    }),
    ...(facts.offsetMm > 0 ? lines.flatMap((line) => findSpikes(line, facts.offsetMm)) : []),
  ];
}

/**
 * Whether any closed outline has parts narrower than a family bears.
 *
 * @example isAnyTooFine([], 'plainVinyl') // false
 */
export function isAnyTooFine(lines: readonly CutLine[], family: Family): boolean {
  const widthMm = factsOf(family).finestMm;
  return lines.some(
    (line) => line.isClosed && line.role !== 'crease' && narrowPlaces(ringsOf(line), widthMm).length > 0,
  );
}

/** What opening or closing by half the width loses or fills, the largest first: bridges and spikes, and bays. */
function narrowPlaces(rings: Rings, widthMm: number): Rings {
  const half = widthMm / 2;
  const lost = subtractRings(rings, offsetRings(offsetRings(rings, -half), half * 1.02));
  const filled = subtractRings(offsetRings(offsetRings(rings, half), -half * 1.02), rings);
  return [...lost, ...filled]
    .map((ring) => ({ ring, area: areaOfRings([ring]) }))
    .filter(({ area }) => area > LOST_SHARE * widthMm * widthMm)
    .sort((a, b) => b.area - a.area)
    .map(({ ring }) => ring);
}

function ringsOf({ points }: CutLine): Rings {
  return [turnAlike(points.slice(0, -1))];
}

function findNarrow(line: CutLine, widthMm: number): readonly Trouble[] {
  const rings = ringsOf(line);
  const worst = narrowPlaces(rings, widthMm);
  const [first] = worst;
  if (!first) return [];
  const smooth = smoothRings(rings, widthMm);
  const deviation = deviationOf(smooth, worst);
  return [
    {
      kind: 'tooFine',
      weight: 'careful',
      what: `line ${line.id + 1} has ${worst.length === 1 ? 'a part' : `${worst.length} parts`} narrower than ${widthMm} mm`,
      why: 'the blade tears or folds what is finer than this in this material',
      lineIds: [line.id],
      at: middleOf(boundPoints(first)),
      preview: writeRingsData(smooth),
      fix: {
        kind: 'edit',
        words: `Smooth by up to ${deviation.toFixed(1)} mm`,
        edit: { kind: 'smooth', lineIds: [line.id], widthMm },
      },
    },
  ];
}

/** How far smoothing moves the outline at most: from what it takes away or fills to the new line, mm. */
function deviationOf(smooth: Rings, changed: Rings): number {
  const ways = smooth.map((ring) => [...ring, itemAt(ring, 0)]);
  return changed.flat().reduce((most, point) => {
    const nearest = ways.reduce((least, way) => Math.min(least, distanceToWay(point, way)), Infinity);
    return Number.isFinite(nearest) ? Math.max(most, nearest) : most;
  }, 0);
}

/** Places where the way turns back within the blade's offset: the tip cannot follow. */
function findSpikes(line: CutLine, offsetMm: number): readonly Trouble[] {
  const { points, isClosed } = line;
  const ring = isClosed ? points.slice(0, -1) : points;
  for (let index = 0; index < ring.length; index++) {
    const before = ring[index - 1] ?? (isClosed ? ring.at(-1) : undefined);
    const here = itemAt(ring, index);
    const after = ring[index + 1] ?? (isClosed ? ring[0] : undefined);
    if (!before || !after || distanceMm(before, here) < offsetMm || distanceMm(here, after) < offsetMm)
      continue;
    const turn = Math.atan2(
      (here.x - before.x) * (after.y - here.y) - (here.y - before.y) * (after.x - here.x),
      (here.x - before.x) * (after.x - here.x) + (here.y - before.y) * (after.y - here.y),
    );
    if (Math.abs(turn) < SPIKE_RAD) continue;
    return [
      {
        kind: 'tightCorner',
        weight: 'careful',
        what: `line ${line.id + 1} turns back sharply`,
        why: `a blade that trails by ${offsetMm} mm drags the tip of such a corner`,
        lineIds: [line.id],
        at: here,
        fix: isClosed
          ? {
              kind: 'edit',
              words: `Round by ${(2 * offsetMm).toFixed(1)} mm`,
              edit: { kind: 'round', lineIds: [line.id], radiusMm: 2 * offsetMm },
            }
          : null,
      },
    ];
  }
  return [];
}
