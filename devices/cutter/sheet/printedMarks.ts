import { drawFor, wedge } from '#devices/chance.ts';
import type { SenseFault } from '#devices/cutter/faults.ts';
import { readCorners, truthOfSheet, type CornerReading } from '#devices/cutter/sheet/printToCut.ts';
import {
  senseMarks,
  type MarksOnPaper,
  type PrintOnPaper,
  type Sensed,
  type SensedMark,
} from '#devices/cutter/sheet/senseMarks.ts';
import { composeMaps, type SheetMap } from '#devices/cutter/sheet/sheetMap.ts';

/** A sheet that was printed with marks: its size, what the file corrects, and how much light it throws back. */
export interface PrintedFacts {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly corrected: SheetMap;
  readonly gloss?: number | undefined;
  /** Its marks; where nobody says, four discs at its corners. */
  readonly marks?: MarksOnPaper | undefined;
}

/** Takes a printed sheet of a size off the table, or tells that none lies there. */
export type TakePrint = (widthMm: number, heightMm: number) => PrintOnPaper | null;

/** How hands put a sheet in, how far askew one may lie by mistake, and how prints from elsewhere are off. Invented. */
const SKEW_SPREAD_RAD = 0.004;
const ASKEW_RAD = 0.05;
const SCALE_SPREAD = 0.0008;
const BRIGHT_ROOM = 0.85;
/** The share of the ink that a tape takes with it, dry and not yet dry. Invented; strong tape lifts ink (T40). */
const LIFTS = { paper: { dry: 0, wet: 0.35 }, strong: { dry: 0.5, wet: 0.9 } } as const;
export type MaskTape = keyof typeof LIFTS;
export const MASK_TAPES = ['paper', 'strong'] as const satisfies readonly MaskTape[];
/** So far from its edges a sheet is read by eye. */
const READ_RIM_MM = 40;

/** The print on the sheet that is in, and what the sensor made of it. */
export class PrintedMarks {
  private print: PrintOnPaper | null = null;
  private sensed: Sensed | null = null;
  private disturbed: readonly SenseFault[] = [];

  constructor(
    private readonly seed: number,
    /** Counts the sheets of the day: each is another one. */
    private readonly sheetCount: number,
    private readonly takePrint: TakePrint,
  ) {}

  /** The marks as the sensor saw them last; empty where it has not looked. */
  get seen(): readonly SensedMark[] {
    return this.sensed?.marks ?? [];
  }

  /** What will be in the way of the sensor the next time it looks. */
  disturb(faults: readonly SenseFault[]): void {
    this.disturbed = faults;
  }

  /**
   * Looks for the marks. A glossy sheet blinds the sensor now and then; loaded again, the light falls otherwise.
   *
   * @returns why the cutter stops, or empty
   */
  look(facts: PrintedFacts, loadCount: number, now: Date): string {
    const has = (fault: SenseFault) => this.disturbed.includes(fault);
    this.print ??= this.takePrint(facts.widthMm, facts.heightMm) ?? {
      scale: 1 + SCALE_SPREAD * this.vary('scale'),
      turnRad: 0,
    };
    const conditions = {
      gloss: facts.gloss ?? 0,
      roomLight: has('roomLight') ? BRIGHT_ROOM : 0,
      skewRad: SKEW_SPREAD_RAD * this.vary('skew') + (has('skewedSheet') ? ASKEW_RAD : 0),
      isMatLifted: has('liftedMat'),
      hasStrayInk: has('strayInk'),
      isWet: this.isWet(now),
    };
    const draw = (what: string) => drawFor(this.seed, `${this.sheetCount}/${loadCount}/${what}`);
    this.sensed = senseMarks(facts, this.print, conditions, draw, facts.marks);
    this.disturbed = [];
    return this.sensed.trouble;
  }

  /** What an eye reads of print against cut; empty where the marks were not read. */
  read({ corrected, widthMm, heightMm }: PrintedFacts): readonly CornerReading[] {
    if (!this.sensed?.landing) return [];
    const truth = composeMaps(this.sensed.landing, truthOfSheet(this.seed, this.sheetCount));
    return readCorners(truth, corrected, widthMm, heightMm, READ_RIM_MM);
  }

  /** Lays tape over the print and pulls it off again. @returns the share of the ink that came with it, 0 to 1 */
  mask(tape: MaskTape, now: Date): number {
    return LIFTS[tape][this.isWet(now) ? 'wet' : 'dry'];
  }

  private isWet(now: Date): boolean {
    const until = this.print?.wetUntil;
    return until !== undefined && now < new Date(until);
  }

  /** What differs from sheet to sheet, between -1 and 1. */
  private vary(what: string): number {
    return wedge(`${this.sheetCount}/${what}`, (text) => drawFor(this.seed, text));
  }
}
