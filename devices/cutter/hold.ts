import { drawFor } from '#devices/chance.ts';
import type { Span } from '#devices/cutter/sheet/cutSheet.ts';
import type { Spot } from '#devices/cutter/instruction.ts';
import { OutlineChain } from '#devices/cutter/outlineChain.ts';

/** How a sheet is held: on a mat by its tack from 0 to 100, or as a roll between rollers; and its own adhesive. */
export interface HoldFacts {
  readonly tack: number | null;
  /** µm of adhesive under the face; 0 for none. */
  readonly adhesiveUm?: number | undefined;
}

/** Below this tack a sheet creeps under the blade. */
const CREEP_BELOW = 25;
const CREEP_CHANCE = 0.12;
const CREEP_MM = 0.5;
/** So many loose pieces lie still; more of them, and one catches some time. */
const STILL_PIECES = 2;
const CATCH_CHANCE = 0.04;
/** Below this share of their outline tabs begin to tear. */
const WEAK_TABS = 0.03;
const TEAR_CHANCE = 0.6;
/** Under thin adhesive a corner that was kissed free stands up now and then, and catches what passes. */
const THIN_ADHESIVE_UM = 15;
const LIFT_CHANCE = 0.03;
const LIFT_REACH_MM = 1.5;
const LIFTED_CATCHES = 0.3;

/** What holds the sheet that is in: it may creep, tabs tear, corners stand up, and what is loose catches. */
export class Hold {
  private loose = 0;
  private strokes = 0;
  private readonly lifted: Spot[] = [];
  private readonly chain = new OutlineChain();
  /** How far the sheet has crept, mm. */
  crept: Spot = { xMm: 0, yMm: 0 };

  constructor(
    private readonly facts: HoldFacts | null,
    private readonly seed: number,
    private readonly sheet: string,
  ) {}

  /** After a stroke: what became of it. @returns why the cutter stops, or `null` */
  after(path: readonly Spot[], spans: readonly Span[]): string | null {
    if (!this.facts) return null;
    this.strokes += 1;
    this.creep();
    const caught = this.catchCorner(path);
    const outline = this.chain.add(path, spans);
    if (outline?.kind === 'kissed') this.liftCorner(path);
    const isLoose =
      outline?.kind === 'free' ||
      (outline?.kind === 'tabbed' && this.draw('tear') < tearChance(outline.tabShare));
    return caught ?? (isLoose ? this.dropPiece() : null);
  }

  /** Where a spot of the sheet lies after it crept. */
  shift({ xMm, yMm }: Spot): Spot {
    return { xMm: xMm + this.crept.xMm, yMm: yMm + this.crept.yMm };
  }

  private creep(): void {
    const tack = this.facts?.tack ?? CREEP_BELOW;
    if (tack >= CREEP_BELOW || this.draw('creep') >= (CREEP_CHANCE * (CREEP_BELOW - tack)) / CREEP_BELOW)
      return;
    this.crept = {
      xMm: this.crept.xMm + CREEP_MM * (this.draw('x') - 0.3),
      yMm: this.crept.yMm + CREEP_MM * (this.draw('y') - 0.5),
    };
  }

  private liftCorner(path: readonly Spot[]): void {
    const adhesive = this.facts?.adhesiveUm ?? THIN_ADHESIVE_UM;
    const corner = path[0];
    if (corner && adhesive < THIN_ADHESIVE_UM && this.draw('lift') < LIFT_CHANCE) this.lifted.push(corner);
  }

  private catchCorner(path: readonly Spot[]): string | null {
    const isNear = this.lifted.some((corner) =>
      path.some(({ xMm, yMm }) => Math.hypot(xMm - corner.xMm, yMm - corner.yMm) < LIFT_REACH_MM),
    );
    return isNear && this.draw('corner') < LIFTED_CATCHES
      ? 'jam: a lifted corner caught under the blade'
      : null;
  }

  /** A piece is loose. On a mat that holds it stays where it is. */
  private dropPiece(): string | null {
    const tack = this.facts?.tack ?? null;
    if (tack !== null && tack >= CREEP_BELOW) return null;
    this.loose += 1;
    const chance = CATCH_CHANCE * Math.max(0, this.loose - STILL_PIECES);
    return this.draw('catch') < chance ? 'jam: a loose piece caught under the blade' : null;
  }

  private draw(what: string): number {
    return drawFor(this.seed, `${this.sheet}/${this.strokes}/${what}`);
  }
}

/** @param tabShare of the outline that tabs take */
function tearChance(tabShare: number): number {
  return (TEAR_CHANCE * Math.max(0, WEAK_TABS - tabShare)) / WEAK_TABS;
}
