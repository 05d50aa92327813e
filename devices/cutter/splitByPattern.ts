import type { Spot } from '#devices/cutter/instruction.ts';

/** A line type: shares of a period with the tool down, up, down, … and the period's length. */
export interface LinePattern {
  readonly shares: readonly number[];
  readonly periodMm: number;
}

/** A piece of a path with the tool down or up. */
export interface PatternPiece {
  readonly isDown: boolean;
  readonly points: readonly Spot[];
  /** Its share of the whole path, from 0 to 1. */
  readonly from: number;
  readonly to: number;
}

/** Walks a path and lifts the tool as the pattern says, beginning with the tool down. */
export function splitByPattern(
  path: readonly Spot[],
  { shares, periodMm }: LinePattern,
): readonly PatternPiece[] {
  const sum = shares.reduce((all, share) => all + share, 0);
  const total = lengthOf(path);
  if (total <= 0 || sum <= 0 || periodMm <= 0) return [];
  const pieces: PatternPiece[] = [];
  let points: Spot[] = [path[0] as Spot];
  let begun = 0;
  let along = 0;
  let step = 0;
  let left = ((shares[0] as number) / sum) * periodMm;
  const close = () => {
    const last = pieces.at(-1);
    const isDown = (step % shares.length) % 2 === 0;
    // Down meets down where one period ends and the next begins.
    if (last && last.isDown === isDown) {
      pieces[pieces.length - 1] = {
        ...last,
        points: [...last.points, ...points.slice(1)],
        to: along / total,
      };
    } else if (points.length > 1) {
      pieces.push({ isDown, points, from: begun / total, to: along / total });
    }
    points = [points.at(-1) as Spot];
    begun = along;
  };
  for (let index = 1; index < path.length; index++) {
    let from = path[index - 1] as Spot;
    const to = path[index] as Spot;
    let length = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm);
    while (length > left) {
      const share = left / length;
      from = {
        xMm: from.xMm + (to.xMm - from.xMm) * share,
        yMm: from.yMm + (to.yMm - from.yMm) * share,
      };
      along += left;
      length -= left;
      points.push(from);
      close();
      step += 1;
      left = ((shares[step % shares.length] as number) / sum) * periodMm;
    }
    along += length;
    left -= length;
    points.push(to);
  }
  close();
  return pieces;
}

function lengthOf(path: readonly Spot[]): number {
  return path.reduce((sum, spot, index) => {
    const before = path[index - 1];
    return before ? sum + Math.hypot(spot.xMm - before.xMm, spot.yMm - before.yMm) : 0;
  }, 0);
}
