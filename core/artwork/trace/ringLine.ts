import type { PointMm } from '#core/geometry/point.ts';
import { ROUNDING } from '#core/units/rounding.ts';

/** A ring turns a corner where it turns by more than this within the reach on both sides. */
const CORNER_RAD = (50 * Math.PI) / 180;
/** A corner is moved by at most this share of the reach: sides that meet further off are no corner's. */
const MOST_TIP_SHARE = 0.6;
/** The sides of a corner are followed so many reaches, as far as they bow by no more than this share of one. */
const SIDE_REACHES = [12, 6, 3, 1.5] as const;
const STRAIGHT_BOW_SHARE = 0.06;
/** Within this share of the reach a corner is blunt. */
const BLUNT_SHARE = 0.35;

/** Points of a stretch, and where each lies on its curve, 0 to 1. */
export interface Samples {
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly places: Float64Array;
}

/** A direction of length 1. */
export interface Direction {
  readonly x: number;
  readonly y: number;
}

/** A ring as a line that goes round and round: its points by any whole number, with the way along it. */
export class RingLine {
  readonly count: number;
  /** Three rounds of points, so that nobody has to count round: the one before the first, the first, the next. */
  private readonly xs: Float64Array;
  private readonly ys: Float64Array;
  /** The way along them. */
  private readonly way: Float64Array;

  constructor(
    ring: readonly PointMm[],
    private readonly reach: number,
  ) {
    const count = ring.length;
    this.count = count;
    this.xs = new Float64Array(3 * count);
    this.ys = new Float64Array(3 * count);
    this.way = new Float64Array(3 * count);
    for (let at = 0; at < 3 * count; at++) {
      const { x, y } = ring[at % count] as PointMm;
      this.xs[at] = x;
      this.ys[at] = y;
      if (at === 0) continue;
      const step = Math.hypot(x - (this.xs[at - 1] as number), y - (this.ys[at - 1] as number));
      this.way[at] = (this.way[at - 1] as number) + step;
    }
  }

  x(at: number): number {
    return this.xs[at + this.count] as number;
  }

  y(at: number): number {
    return this.ys[at + this.count] as number;
  }

  /** Every nth point from one to another, the ends among them. */
  samples(from: number, to: number, stride: number): Samples {
    const count = Math.ceil((to - from) / stride) + 1;
    const start = this.along(from);
    const long = this.along(to) - start;
    const found = {
      xs: new Float64Array(count),
      ys: new Float64Array(count),
      places: new Float64Array(count),
    };
    for (let k = 0; k < count; k++) {
      const at = Math.min(to, from + k * stride);
      found.xs[k] = this.x(at);
      found.ys[k] = this.y(at);
      found.places[k] = (this.along(at) - start) / long;
    }
    return found;
  }

  /**
   * How far the points between two lie from the straight line at most; infinite where both are one place. Beyond `enough`
   * nobody asks.
   */
  bowBetween(from: number, to: number, enough = Infinity): number {
    const [x, y] = [this.x(from), this.y(from)];
    const [dx, dy] = [this.x(to) - x, this.y(to) - y];
    const long = Math.hypot(dx, dy);
    if (long < ROUNDING) return Infinity;
    let most = 0;
    for (let at = from + 1; at < to && most <= enough * long; at++) {
      most = Math.max(most, Math.abs((this.x(at) - x) * dy - (this.y(at) - y) * dx));
    }
    return most / long;
  }

  /** Places where the ring turns sharply within its reach, ascending; each the sharpest of its surroundings. */
  findCorners(): readonly number[] {
    const turns = Float64Array.from({ length: this.count }, (_, at) => this.turnAt(at));
    const corners: number[] = [];
    for (let at = 0; at < this.count; at++) {
      const turn = turns[at] as number;
      if (turn < CORNER_RAD) continue;
      let isSharpest = true;
      for (let off = 1; isSharpest && this.wayBetween(at, at + off) < this.reach; off++) {
        isSharpest = turn >= (turns[(at + off) % this.count] as number);
      }
      for (let off = 1; isSharpest && this.wayBetween(at - off, at) < this.reach; off++) {
        isSharpest = turn > (turns[this.wrap(at - off)] as number);
      }
      if (isSharpest) corners.push(at);
    }
    return corners;
  }

  /** Where the ring turns most. */
  sharpest(): number {
    let best = 0;
    let most = -1;
    for (let at = 0; at < this.count; at++) {
      const turn = this.turnAt(at);
      if (turn > most) [best, most] = [at, turn];
    }
    return best;
  }

  /** The same line of other points. */
  renewed(ring: readonly PointMm[]): RingLine {
    return new RingLine(ring, this.reach);
  }

  /** The points within a share of the reach of one, itself among them. */
  near(at: number, share: number): readonly number[] {
    const places = [at];
    for (const sign of [1, -1] as const) {
      for (let off = 1; off < this.count / 3; off++) {
        if (this.wayBetween(at, at + sign * off) >= share * this.reach) break;
        places.push(this.wrap(at + sign * off));
      }
    }
    return places;
  }

  /** Where the sides of a corner meet, as they run beyond a share of the reach from it. */
  tipAt(at: number, share: number): PointMm {
    const here = { x: this.x(at), y: this.y(at) };
    const [one, other] = [this.sideOf(at, -1, share), this.sideOf(at, 1, share)];
    const cross = one.dx * other.dy - one.dy * other.dx;
    if (Math.abs(cross) < ROUNDING) return here;
    const t = ((other.x - one.x) * other.dy - (other.y - one.y) * other.dx) / cross;
    const tip = { x: one.x + t * one.dx, y: one.y + t * one.dy };
    return Math.hypot(tip.x - here.x, tip.y - here.y) <= MOST_TIP_SHARE * this.reach ? tip : here;
  }

  /** A side of a corner as a straight line: as long as it is straight, since pixels say little of a short one. */
  private sideOf(at: number, sign: 1 | -1, share: number) {
    const from = this.stepsTo(at, sign, share * this.reach);
    const to = SIDE_REACHES.map((far) => this.stepsTo(at, sign, (far + share) * this.reach)).find(
      (end) => this.bowOf(at, sign, from, end) <= STRAIGHT_BOW_SHARE * this.reach,
    );
    const end = this.wrap(at + sign * (to ?? this.stepsTo(at, sign, (1 + share) * this.reach)));
    const start = this.wrap(at + sign * from);
    const [x, y] = [this.x(start), this.y(start)];
    return { x, y, dx: this.x(end) - x, dy: this.y(end) - y };
  }

  private bowOf(at: number, sign: 1 | -1, from: number, to: number): number {
    if (to - from < 1) return Infinity;
    return sign === 1
      ? this.bowBetween(this.wrap(at + from), this.wrap(at + from) + to - from)
      : this.bowBetween(this.wrap(at - to), this.wrap(at - to) + to - from);
  }

  /** The direction through a point of a smooth way. */
  through(at: number): Direction {
    const place = this.wrap(at);
    const back = this.reached(place, -1);
    const on = this.reached(place, 1);
    return unit(on.x - back.x, on.y - back.y);
  }

  /** The direction in which the way leaves a corner, before `to`. */
  leaving(at: number, to: number): Direction {
    return this.oneSided(at, 1, to - at);
  }

  /** The direction in which the way arrives at a corner, from after `from`. */
  arriving(at: number, from: number): Direction {
    const { x, y } = this.oneSided(at, -1, at - from);
    return { x: -x, y: -y };
  }

  /** By a parabola through the corner, half the reach and the whole reach: what a chord alone would turn too far. */
  private oneSided(at: number, sign: 1 | -1, most: number): Direction {
    let far = 0;
    let half = 0;
    while (far < most && this.wayBetween(at, at + sign * far) < this.reach) {
      far += 1;
      if (this.wayBetween(at, at + sign * far) <= this.reach / 2) half = far;
    }
    const [x, y] = [this.x(this.wrap(at)), this.y(this.wrap(at))];
    const end = this.wrap(at + sign * far);
    if (half === 0 || half === far) return unit(this.x(end) - x, this.y(end) - y);
    const mid = this.wrap(at + sign * half);
    const s = this.wayBetween(at, at + sign * half);
    const t = this.wayBetween(at, at + sign * far);
    const slope = (middle: number, last: number, here: number) =>
      (t / (s * (t - s))) * (middle - here) - (s / (t * (t - s))) * (last - here);
    return unit(slope(this.x(mid), this.x(end), x), slope(this.y(mid), this.y(end), y));
  }

  private turnAt(at: number): number {
    const back = this.reached(at, -1);
    const on = this.reached(at, 1);
    const [ax, ay] = [this.x(at) - back.x, this.y(at) - back.y];
    const [bx, by] = [on.x - this.x(at), on.y - this.y(at)];
    return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }

  /** The first point that is the reach away along the way. */
  private reached(at: number, sign: 1 | -1): PointMm {
    const end = this.wrap(at + sign * this.stepsTo(at, sign, this.reach));
    return { x: this.x(end), y: this.y(end) };
  }

  /** How many points on a way so long ends; a third of the ring at most. */
  private stepsTo(at: number, sign: 1 | -1, far: number): number {
    let off = 1;
    while (off < this.count / 3 && this.wayBetween(at, at + sign * off) < far) off += 1;
    return off;
  }

  private wayBetween(one: number, other: number): number {
    return Math.abs(this.along(other) - this.along(one));
  }

  private along(at: number): number {
    return this.way[at + this.count] as number;
  }

  private wrap(at: number): number {
    return ((at % this.count) + this.count) % this.count;
  }
}

/**
 * Pixels cut every corner off: the sides are taken up again a little way from it, and meet where they would.
 *
 * @returns the ring with its corners sharp, and where they stand in it
 * @example sharpenCorners(squareLine).corners.length // 4
 */
export function sharpenCorners(line: RingLine): {
  readonly line: RingLine;
  readonly corners: readonly number[];
} {
  const found = line.findCorners();
  if (found.length === 0) return { line, corners: found };
  const isCorner = new Set(found);
  const points: PointMm[] = [];
  const corners: number[] = [];
  const isBlunt = new Uint8Array(line.count);
  for (const corner of found) for (const at of line.near(corner, BLUNT_SHARE)) isBlunt[at] = 1;
  for (let at = 0; at < line.count; at++) {
    if (isCorner.has(at)) {
      corners.push(points.length);
      points.push(line.tipAt(at, BLUNT_SHARE));
    } else if (isBlunt[at] === 0) {
      points.push({ x: line.x(at), y: line.y(at) });
    }
  }
  return points.length < 3 ? { line, corners: found } : { line: line.renewed(points), corners };
}

function unit(x: number, y: number): Direction {
  const long = Math.hypot(x, y) || 1;
  return { x: x / long, y: y / long };
}
