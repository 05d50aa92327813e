import type { Instruction, Spot } from '#devices/cutter/instruction.ts';
import type { FittedSeat, LoadOrder } from '#devices/cutter/loadOrder.ts';
import { drawFor, wedge } from '#devices/chance.ts';
import type { CutStroke } from '#devices/cutter/sheet/cutStroke.ts';
import { CutSheet, type Span } from '#devices/cutter/sheet/cutSheet.ts';
import type { CutterModel } from '#devices/cutter/cutterModel.ts';
import { splitByPattern } from '#devices/cutter/splitByPattern.ts';
import { Hold } from '#devices/cutter/hold.ts';
import type { SenseFault } from '#devices/cutter/faults.ts';
import type { CornerReading } from '#devices/cutter/sheet/printToCut.ts';
import type { SensedMark } from '#devices/cutter/sheet/senseMarks.ts';
import { PrintedMarks, type MaskTape, type TakePrint } from '#devices/cutter/sheet/printedMarks.ts';
import { handleSheet, type Handled } from '#devices/cutter/sheet/handleSheet.ts';
import { findSheetTruth, type SheetTruth } from '#devices/cutter/sheet/sheetTruth.ts';

/** What the stand-in says while it works. */
export type CutterEvent =
  | { readonly event: 'started' }
  | { readonly event: 'position'; readonly xMm: number; readonly yMm: number; readonly stroke: number }
  | { readonly event: 'stroke'; readonly index: number; readonly spans: readonly Span[] }
  | { readonly event: 'finished'; readonly cutMetres: number }
  | { readonly event: 'stopped'; readonly reason: string };

const TRAVEL_MM_PER_S = 300;
const REPORT_EVERY_MS = 80;
/** A blunt tool presses a line and cuts nothing; an empty holder does neither. */
const UNCUT: readonly Span[] = [{ from: 0, to: 1, grade: 0 }];
/** The deepest that a blade comes over the strip, and how much more a light cut does over the groove. */
const STRIP_GRADE = 6;
const GROOVE_DIG = 1.3;

/** The stand-in cutter without its sockets: takes instructions, passes simulated time, tells what it reached. */
export class Cutter {
  private sheet: CutSheet | null = null;
  private truth: SheetTruth | null = null;
  private loaded: LoadOrder | null = null;
  private marks: PrintedMarks;
  private sheetCount = 0;
  private loadCount = 0;
  private cutStrokes: CutStroke[] = [];
  private hold = new Hold(null, 0, '');
  private force: number | null = null;
  private speed = 10;
  private seat = 1;
  private at: Spot = { xMm: 0, yMm: 0 };
  private strokeCount = 0;
  private cutMm = 0;
  private lineShares: readonly number[] = [100];
  private linePeriodMm: number | null = null;
  private stopReason: string | null = null;
  /** The stroke that is being drawn piece by piece. */
  private drawn: Spot[] | null = null;
  private lastReport = 0;
  private owedMs = 0;

  constructor(
    private readonly model: CutterModel,
    private readonly seed: number,
    /** How many times faster than real the simulated time passes. */
    private readonly pace: number,
    private readonly report: (event: CutterEvent) => void,
    private readonly takePrint: TakePrint = () => null,
  ) {
    this.marks = new PrintedMarks(seed, 0, takePrint);
  }

  load(order: LoadOrder): void {
    this.loaded = order;
    this.loadCount += 1;
    if (!order.isFreshSheet && this.sheet) return;
    this.sheetCount += 1;
    this.cutStrokes = [];
    this.marks = new PrintedMarks(this.seed, this.sheetCount, this.takePrint);
    this.hold = new Hold(order.hold ?? null, this.seed, String(this.sheetCount));
    const truth = findSheetTruth(order.sheet, (text) => drawFor(7, text));
    this.truth = truth;
    const thisSheet = `${this.sheetCount}/${order.sheet.key}`;
    const factor = 1 + 0.05 * wedge(thisSheet, (text) => drawFor(this.seed, text));
    this.sheet = new CutSheet(truth, this.seed + this.sheetCount, factor);
  }

  /** What hands find: how the pieces held that were pushed out, how a crease folds. */
  handle(): Handled {
    return this.truth ? handleSheet(this.cutStrokes, this.truth) : { held: null, folded: null };
  }

  /** Masks the sheet that is in. @returns the share of its ink that the tape lifts; `null` where nothing is printed */
  mask(tape: MaskTape): number | null {
    return this.loaded?.printed ? this.marks.mask(tape, new Date()) : null;
  }

  /** What an eye reads of print against cut on the sheet that is in; empty where nothing is printed. */
  readPrint(): readonly CornerReading[] {
    const printed = this.loaded?.printed;
    return printed && this.cutStrokes.length > 0 ? this.marks.read(printed) : [];
  }

  /** The marks as the sensor saw them last; empty where it has not looked. */
  get seenMarks(): readonly SensedMark[] {
    return this.marks.seen;
  }

  /** What will be in the way of the sensor the next time it looks for marks. */
  disturb(faults: readonly SenseFault[]): void {
    this.marks.disturb(faults);
  }

  /** Every stroke on the sheet that is in, the oldest first. */
  get sheetStrokes(): readonly CutStroke[] {
    return this.cutStrokes;
  }

  /** Strokes of the job that were cut. */
  get strokesCut(): number {
    return this.strokeCount;
  }

  /** Metres that the blade went in the job. */
  get cutMetres(): number {
    return this.cutMm / 1000;
  }

  stop(reason: string): void {
    this.stopReason = reason;
  }

  /** Does one instruction; resolves when its simulated time has passed. False when the job is over. */
  async act(instruction: Instruction): Promise<boolean> {
    if (this.stopReason !== null) return this.endStopped();
    switch (instruction.kind) {
      case 'begin':
        this.begin();
        return true;
      case 'tool':
        return this.selectTool(instruction.seat);
      case 'force':
        return this.setForce(instruction.value);
      case 'speed':
        this.speed = instruction.value;
        return true;
      case 'defineLine':
        this.lineShares = instruction.shares;
        return true;
      case 'line':
        this.linePeriodMm = instruction.periodMm;
        return true;
      case 'travel':
        for (const spot of instruction.points) await this.move(spot, TRAVEL_MM_PER_S);
        return true;
      case 'cut':
        return this.cut(instruction.points);
      case 'press':
        return this.press();
      case 'draw':
        await this.move(
          instruction.to,
          this.drawn ? this.speed * this.model.mmPerSPerSpeed : TRAVEL_MM_PER_S,
        );
        this.drawn?.push(instruction.to);
        return this.stopReason === null || this.endStopped();
      case 'lift':
        this.lift();
        return true;
      case 'end':
        this.report({ event: 'finished', cutMetres: this.cutMm / 1000 });
        return false;
    }
  }

  /** A job is taken on: what stopped an earlier one counts no more, and what stops it from now on does. */
  takeOn(): void {
    this.stopReason = null;
  }

  private begin(): void {
    this.strokeCount = 0;
    this.drawn = null;
    this.seat = 1;
    this.linePeriodMm = null;
    this.cutMm = 0;
    this.force = this.loaded?.dialled?.force ?? null;
    this.speed = this.loaded?.dialled?.speed ?? this.speed;
    this.report({ event: 'started' });
    const { printed } = this.loaded ?? {};
    const trouble = printed ? this.marks.look(printed, this.loadCount, new Date()) : '';
    if (trouble) this.stop(trouble);
  }

  /** A tool number chooses a numbered cut of the panel where it holds several, else a seat. */
  private selectTool(number: number): boolean {
    const cuts = this.loaded?.panelCuts;
    if (!cuts) return this.selectSeat(number);
    const dialled = cuts.find((cut) => cut.number === number);
    if (!dialled) {
      this.stop(`cut ${number} was never dialled at the panel`);
      return this.endStopped();
    }
    this.speed = dialled.speed;
    if (!this.selectSeat(dialled.seat ?? 1)) return false;
    return this.setForce(dialled.force);
  }

  private selectSeat(seat: number): boolean {
    if (seat < 1 || seat > this.model.seats) {
      this.stop(`there is no tool seat ${seat}`);
      return this.endStopped();
    }
    this.seat = seat;
    return true;
  }

  /** The tool that comes down now: as hands fitted it, else as the model has it. */
  private get fitted(): FittedSeat {
    const told = this.loaded?.seats?.[this.seat - 1];
    return told ?? { tool: this.seat === this.model.creaseSeat ? 'crease' : 'blade', over: null };
  }

  private setForce(value: number): boolean {
    const { minForce, maxForce } = this.model;
    if (value < minForce || value > maxForce) {
      this.stop(`force ${value} is outside ${minForce} to ${maxForce}`);
      return this.endStopped();
    }
    this.force = value;
    return true;
  }

  private async cut(points: readonly Spot[]): Promise<boolean> {
    if (!this.isReady() || !this.sheet) return this.endStopped();
    const path = [this.at, ...points];
    for (const spot of points) {
      await this.move(spot, this.speed * this.model.mmPerSPerSpeed);
      if (this.stopReason !== null) return this.endStopped();
    }
    this.leaveStroke(this.sheet, path);
    return true;
  }

  /** The tool goes down where it is; down already, another stroke begins there. */
  private press(): boolean {
    if (!this.isReady()) return this.endStopped();
    this.lift();
    this.drawn = [this.at];
    return true;
  }

  /** Whether a stroke can be cut; otherwise the cutter stops. */
  private isReady(): boolean {
    if (!this.sheet || !this.loaded) this.stop('no sheet is loaded');
    else if (this.force === null) this.stop('no force was set, by the file or the panel');
    return this.stopReason === null;
  }

  private lift(): void {
    const path = this.drawn;
    this.drawn = null;
    if (path && path.length > 1 && this.sheet) this.leaveStroke(this.sheet, path);
  }

  /** A stroke is done: what it reached, and what becomes of the sheet. */
  private leaveStroke(sheet: CutSheet, path: readonly Spot[]): void {
    const speedMmPerS = this.speed * this.model.mmPerSPerSpeed;
    const { tool, over } = this.fitted;
    const spans = tool === 'blade' ? onGround(this.cutPath(sheet, path, speedMmPerS), over) : UNCUT;
    const forceGf = this.model.trueGf(this.force as number);
    // The blade goes where it is told: on a sheet that crept it is another place.
    const lies = path.map((spot) => this.hold.shift(spot));
    this.cutStrokes.push({ path: lies, spans, seat: this.seat, forceGf, isPressed: tool === 'crease' });
    this.report({ event: 'stroke', index: this.strokeCount, spans });
    this.strokeCount += 1;
    const trouble = this.hold.after(path, spans);
    if (trouble) this.stop(trouble);
  }

  private cutPath(sheet: CutSheet, path: readonly Spot[], speedMmPerS: number): readonly Span[] {
    const loaded = this.loaded as LoadOrder;
    const bladeMetres = loaded.bladeMetres + this.cutMm / 1000;
    const conditions = {
      forceGf: this.model.trueGf(this.force as number) * (this.fitted.over === 'groove' ? GROOVE_DIG : 1),
      speedMmPerS,
      exposureMm: loaded.exposureMm,
      bladeMetres,
    };
    if (this.linePeriodMm === null) return sheet.cut(path, conditions);
    const pieces = splitByPattern(path, { shares: this.lineShares, periodMm: this.linePeriodMm });
    return pieces.flatMap(({ isDown, points, from, to }): readonly Span[] =>
      isDown
        ? sheet.cut(points, conditions).map((span) => ({
            from: from + (to - from) * span.from,
            to: from + (to - from) * span.to,
            grade: span.grade,
          }))
        : [{ from, to, grade: 0 }],
    );
  }

  private async move(to: Spot, speedMmPerS: number): Promise<void> {
    const length = Math.hypot(to.xMm - this.at.xMm, to.yMm - this.at.yMm);
    if (speedMmPerS !== TRAVEL_MM_PER_S && this.fitted.tool === 'blade') this.cutMm += length;
    this.at = to;
    this.owedMs += (length / speedMmPerS / this.pace) * 1000;
    if (this.owedMs >= 15) {
      const wait = this.owedMs;
      this.owedMs = 0;
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
    const now = Date.now();
    if (now - this.lastReport < REPORT_EVERY_MS) return;
    this.lastReport = now;
    this.report({ event: 'position', xMm: to.xMm, yMm: to.yMm, stroke: this.strokeCount });
  }

  private endStopped(): boolean {
    const reason = this.stopReason ?? 'stopped';
    this.stopReason = null;
    this.drawn = null;
    this.report({ event: 'stopped', reason });
    return false;
  }
}

function onGround(spans: readonly Span[], over: FittedSeat['over']): readonly Span[] {
  if (over !== 'strip') return spans;
  return spans.map((span) => ({ ...span, grade: Math.min(span.grade, STRIP_GRADE) }));
}
