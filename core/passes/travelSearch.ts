import type { PointMm } from '#core/geometry/point.ts';
import { distance, findNeighbours, NEIGHBOURS, type TravelStops } from '#core/passes/travelStops.ts';
import type { Random } from '#core/random/seededRandom.ts';

/** Longest run that is moved elsewhere as it is. */
const LONGEST_RUN = 3;
/** A gain below this is rounding, mm. */
const LEAST_GAIN_MM = 1e-7;
/** How far apart the ends of a kick lie, in stops. */
const KICK_REACH = 50;
/** Longer runs are not turned after a kick: it helps hardly ever, and costs the most. */
const LONGEST_KICKED_TURN = 1000;
const MOVES_A_KICK = 2000;

/**
 * A way through stops that is shortened by 2-opt and Or-opt moves over near neighbours, and by kicks. Stops that a
 * reversed run passes backwards swap their ends. No move puts a stop before one that must come first.
 *
 * Source: Croes 1958 (2-opt), Or 1976 (Or-opt), Bentley 1992 (neighbour lists and don't-look bits), Martin, Otto and
 * Felten 1991 (kicks).
 */
export class TravelSearch {
  readonly order: Int32Array;
  private readonly count: number;
  private readonly place: Int32Array;
  private readonly neighbours: Int32Array;
  private readonly after: readonly (readonly number[])[];
  private readonly isOrdered: boolean;
  /** Stops whose surroundings changed. */
  private queue: number[] = [];
  private readonly isQueued: Uint8Array;
  private movesLeft = Infinity;
  /** Runs turned since the last kick, from and to by turns, and by how much the way became longer. */
  private readonly turns: number[] = [];
  private changeMm = 0;
  private isKicked = false;
  private longestTurn = Infinity;

  constructor(
    private readonly stops: TravelStops,
    private readonly start: PointMm,
    private readonly end: PointMm | null,
    order: readonly number[],
  ) {
    this.count = order.length;
    this.order = Int32Array.from(order);
    this.place = new Int32Array(this.count);
    this.order.forEach((stop, at) => (this.place[stop] = at));
    this.neighbours = findNeighbours(stops, this.count);
    this.isOrdered = stops.before.some((list) => list.length > 0);
    const after = stops.before.map((): number[] => []);
    stops.before.forEach((list, stop) => list.forEach((first) => after[first]?.push(stop)));
    this.after = after;
    this.isQueued = new Uint8Array(this.count);
  }

  /** Length of all travel, mm. */
  get lengthMm(): number {
    let sum = 0;
    for (let at = 0; at <= this.count; at++) sum += this.gap(at);
    return sum;
  }

  /** Where the head comes down for a stop now. */
  enterOf(stop: number): readonly [number, number] {
    return [this.stops.enterX[stop] as number, this.stops.enterY[stop] as number];
  }

  /** Improves until no move helps, or so many moves are made. */
  improve(moves = Infinity): void {
    this.movesLeft = moves;
    for (const stop of this.order) this.wake(stop);
    this.settle();
  }

  /**
   * Shakes the way in one neighbourhood and settles it again, so many times; what is not shorter is taken back. Both cost
   * what they change, not the whole way: long ways take many kicks as quickly as short ones.
   */
  kick(times: number, random: Random): void {
    if (this.count < 8) return;
    this.longestTurn = LONGEST_KICKED_TURN;
    for (let time = 0; time < times; time++) {
      this.turns.length = 0;
      this.changeMm = 0;
      this.movesLeft = MOVES_A_KICK;
      this.isKicked = true;
      if (this.shake(random)) this.settle();
      this.isKicked = false;
      if (this.changeMm > -LEAST_GAIN_MM) this.takeBack();
    }
    this.longestTurn = Infinity;
  }

  /** Turns every run back that was turned since the kick, the last first. */
  private takeBack(): void {
    for (let at = this.turns.length - 2; at >= 0; at -= 2) {
      this.reverse(this.turns[at] as number, this.turns[at + 1] as number);
    }
  }

  private settle(): void {
    while (this.queue.length > 0 && this.movesLeft > 0) {
      const stop = this.queue.pop() as number;
      this.isQueued[stop] = 0;
      while (this.movesLeft > 0 && this.improveAt(stop)) this.movesLeft--;
    }
    for (const stop of this.queue) this.isQueued[stop] = 0;
    this.queue = [];
  }

  private wake(stop: number): void {
    if (this.isQueued[stop]) return;
    this.isQueued[stop] = 1;
    this.queue.push(stop);
  }

  private wakeAt(at: number): void {
    if (at >= 0 && at < this.count) this.wake(this.order[at] as number);
  }

  private improveAt(stop: number): boolean {
    const base = stop * NEIGHBOURS;
    const at = this.place[stop] as number;
    // What is no nearer than the neighbours that the way has now cannot shorten it from here.
    const longest = Math.max(this.gap(at), this.gap(at + 1));
    for (let index = 0; index < NEIGHBOURS; index++) {
      const near = this.neighbours[base + index] as number;
      if (near < 0) break;
      if (this.nearest(stop, near) >= longest) continue;
      const other = this.place[near] as number;
      const [low, high] = at < other ? [at, other] : [other, at];
      // Either the two become neighbours at the front of the run between them, or at its back.
      if (this.tryReverse(low + 1, high) || this.tryReverse(low, high - 1)) return true;
      for (let length = 1; length <= LONGEST_RUN; length++) {
        if (this.tryMove(at, length, other) || this.tryMove(at - length + 1, length, other)) return true;
      }
    }
    return false;
  }

  /** The least distance between any ends of two stops. */
  private nearest(a: number, b: number): number {
    const { enterX, enterY, leaveX, leaveY } = this.stops;
    const [ax, ay, bx, by] = [
      enterX[a] as number,
      enterY[a] as number,
      enterX[b] as number,
      enterY[b] as number,
    ];
    const [cx, cy, dx, dy] = [
      leaveX[a] as number,
      leaveY[a] as number,
      leaveX[b] as number,
      leaveY[b] as number,
    ];
    return Math.min(
      distance(ax - bx, ay - by),
      distance(ax - dx, ay - dy),
      distance(cx - bx, cy - by),
      distance(cx - dx, cy - dy),
    );
  }

  /** Distance travelled before the stop at a place; after the last one to the end. */
  private gap(at: number): number {
    return this.between(at - 1, at);
  }

  private between(from: number, to: number): number {
    if (to >= this.count && !this.end) return 0;
    return distance(this.leaveAtX(from) - this.enterAtX(to), this.leaveAtY(from) - this.enterAtY(to));
  }

  private enterAtX(at: number): number {
    return at >= this.count
      ? (this.end as PointMm).x
      : (this.stops.enterX[this.order[at] as number] as number);
  }

  private enterAtY(at: number): number {
    return at >= this.count
      ? (this.end as PointMm).y
      : (this.stops.enterY[this.order[at] as number] as number);
  }

  private leaveAtX(at: number): number {
    return at < 0 ? this.start.x : (this.stops.leaveX[this.order[at] as number] as number);
  }

  private leaveAtY(at: number): number {
    return at < 0 ? this.start.y : (this.stops.leaveY[this.order[at] as number] as number);
  }

  private tryReverse(from: number, to: number): boolean {
    if (from < 0 || to >= this.count || from > to) return false;
    const old = this.gap(from) + this.gap(to + 1);
    const fresh = this.leaveToLeave(from - 1, to) + this.enterToEnter(from, to + 1);
    if (fresh >= old - LEAST_GAIN_MM || to - from > this.longestTurn || !this.canReverse(from, to))
      return false;
    this.changeMm += fresh - old;
    this.reverse(from, to);
    for (const at of [from - 1, from, to, to + 1]) this.wakeAt(at);
    return true;
  }

  /** From where one stop lifts to where another, run backwards, comes down: where it lifted. */
  private leaveToLeave(at: number, turned: number): number {
    return distance(this.leaveAtX(at) - this.leaveAtX(turned), this.leaveAtY(at) - this.leaveAtY(turned));
  }

  private enterToEnter(turned: number, at: number): number {
    if (at >= this.count && !this.end) return 0;
    return distance(this.enterAtX(turned) - this.enterAtX(at), this.enterAtY(turned) - this.enterAtY(at));
  }

  private canReverse(from: number, to: number): boolean {
    if (!this.isOrdered) return true;
    for (let at = from; at <= to; at++) {
      for (const later of this.after[this.order[at] as number] as readonly number[]) {
        const place = this.place[later] as number;
        if (place >= from && place <= to) return false;
      }
    }
    return true;
  }

  private reverse(from: number, to: number): void {
    if (this.isKicked) this.turns.push(from, to);
    const { enterX, enterY, leaveX, leaveY } = this.stops;
    for (let low = from, high = to; low <= high; low++, high--) {
      const a = this.order[low] as number;
      const b = this.order[high] as number;
      swap(enterX, leaveX, a);
      swap(enterY, leaveY, a);
      if (low !== high) {
        swap(enterX, leaveX, b);
        swap(enterY, leaveY, b);
      }
      this.order[low] = b;
      this.order[high] = a;
      this.place[b] = low;
      this.place[a] = high;
    }
  }

  /** Moves a short run next to another stop: two or three reversals that together change three gaps. */
  private tryMove(from: number, length: number, other: number): boolean {
    const to = from + length - 1;
    if (from < 0 || to >= this.count || (other >= from && other <= to)) return false;
    const isRight = other > to;
    // The run goes right after the other stop when that lies to the right, right before it when to the left.
    const [first, last] = isRight ? [from, other] : [other, to];
    const old = this.gap(first) + this.gap(last + 1) + (isRight ? this.gap(to + 1) : this.gap(from));
    const straight = isRight
      ? this.between(from - 1, to + 1) + this.between(other, from) + this.between(to, other + 1)
      : this.between(other - 1, from) + this.between(to, other) + this.between(from - 1, to + 1);
    const turned = isRight
      ? this.between(from - 1, to + 1) + this.leaveToLeave(other, to) + this.enterToEnter(from, other + 1)
      : this.leaveToLeave(other - 1, to) + this.enterToEnter(from, other) + this.between(from - 1, to + 1);
    const fresh = Math.min(straight, turned);
    if (fresh >= old - LEAST_GAIN_MM || last - first > this.longestTurn) return false;
    if (!this.canMove(from, to, first, last)) return false;
    this.changeMm += fresh - old;
    const isTurned = turned < straight;
    this.reverse(first, last);
    // The run lies now, turned, at the far end, and what it passed, turned, before or after it.
    if (isRight) {
      this.reverse(first, last - length);
      if (!isTurned) this.reverse(last - length + 1, last);
    } else {
      this.reverse(first + length, last);
      if (!isTurned) this.reverse(first, first + length - 1);
    }
    for (const at of [first - 1, first, first + length, last - length, last, last + 1]) this.wakeAt(at);
    return true;
  }

  private canMove(from: number, to: number, first: number, last: number): boolean {
    if (!this.isOrdered) return true;
    for (let at = from; at <= to; at++) {
      const stop = this.order[at] as number;
      const bound = first < from ? this.stops.before[stop] : this.after[stop];
      for (const one of bound as readonly number[]) {
        const place = this.place[one] as number;
        if (place >= first && place <= last) return false;
      }
      // Within the run its own order must survive being turned: no pair of it may be bound.
      for (const one of this.after[stop] as readonly number[]) {
        const place = this.place[one] as number;
        if (place >= from && place <= to) return false;
      }
    }
    return true;
  }

  /** Exchanges two neighbouring runs. */
  private shake(random: Random): boolean {
    const from = Math.floor(random() * (this.count - 4));
    const reach = Math.min(KICK_REACH, this.count - from - 1);
    const cuts = [1, 1].map(() => from + 1 + Math.floor(random() * reach));
    const [middle, to] = [Math.min(...cuts), Math.max(...cuts)];
    if (middle >= to || this.isOrdered) return this.shakeOrdered(from, to);
    const old = this.gap(from) + this.gap(middle) + this.gap(to + 1);
    const fresh = this.between(from - 1, middle) + this.between(to, from) + this.between(middle - 1, to + 1);
    this.changeMm += fresh - old;
    this.reverse(from, to);
    this.reverse(from, from + (to - middle));
    this.reverse(from + (to - middle) + 1, to);
    for (const at of [from - 1, from, from + to - middle, from + to - middle + 1, to, to + 1])
      this.wakeAt(at);
    return true;
  }

  private shakeOrdered(from: number, to: number): boolean {
    if (from >= to || !this.canReverse(from, to)) return false;
    const old = this.gap(from) + this.gap(to + 1);
    this.changeMm += this.leaveToLeave(from - 1, to) + this.enterToEnter(from, to + 1) - old;
    this.reverse(from, to);
    for (const at of [from - 1, from, to, to + 1]) this.wakeAt(at);
    return true;
  }
}

function swap(a: Float64Array, b: Float64Array, at: number): void {
  const held = a[at] as number;
  a[at] = b[at] as number;
  b[at] = held;
}
