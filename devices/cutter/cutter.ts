import { drawFor } from '#devices/cutter/chance.ts';
import { CutSheet, type Span } from '#devices/cutter/cutSheet.ts';
import type { CutterModel } from '#devices/cutter/cutterModel.ts';
import type { Instruction, Spot } from '#devices/cutter/decodeHpgl.ts';
import { findSheetTruth, type LoadedSheetFacts } from '#devices/cutter/sheetTruth.ts';

/** What the stand-in says while it works. */
export type CutterEvent =
  | { readonly event: 'started' }
  | { readonly event: 'position'; readonly xMm: number; readonly yMm: number; readonly stroke: number }
  | { readonly event: 'stroke'; readonly index: number; readonly spans: readonly Span[] }
  | { readonly event: 'finished'; readonly cutMetres: number }
  | { readonly event: 'stopped'; readonly reason: string };

/** What hands do at the machine: put a sheet in, fit a blade, turn the exposure, dial the panel. */
export interface LoadOrder {
  readonly sheet: LoadedSheetFacts;
  readonly exposureMm: number;
  readonly bladeMetres: number;
  /** False when the same sheet stays in, between two parts of one job. */
  readonly isFreshSheet: boolean;
  /** What is dialled at the panel, where the panel owns the numbers. */
  readonly dialled?: { readonly force: number; readonly speed: number } | undefined;
}

const TRAVEL_MM_PER_S = 300;
const REPORT_EVERY_MS = 80;
/** A blunt tool presses a line and cuts nothing. */
const PRESSED: readonly Span[] = [{ from: 0, to: 1, grade: 0 }];

/** The stand-in cutter without its sockets: takes instructions, passes simulated time, tells what it reached. */
export class Cutter {
  private sheet: CutSheet | null = null;
  private loaded: LoadOrder | null = null;
  private sheetCount = 0;
  private force: number | null = null;
  private speed = 10;
  private seat = 1;
  private at: Spot = { xMm: 0, yMm: 0 };
  private strokeCount = 0;
  private cutMm = 0;
  private stopReason: string | null = null;
  private lastReport = 0;
  private owedMs = 0;

  constructor(
    private readonly model: CutterModel,
    private readonly seed: number,
    /** How many times faster than real the simulated time passes. */
    private readonly pace: number,
    private readonly report: (event: CutterEvent) => void,
  ) {}

  load(order: LoadOrder): void {
    this.loaded = order;
    if (!order.isFreshSheet && this.sheet) return;
    this.sheetCount += 1;
    const truth = findSheetTruth(order.sheet, (text) => drawFor(7, text));
    const thisSheet = `${this.sheetCount}/${order.sheet.key}`;
    const factor =
      1 + 0.05 * (drawFor(this.seed, `${thisSheet}/a`) + drawFor(this.seed, `${thisSheet}/b`) - 1);
    this.sheet = new CutSheet(truth, this.seed + this.sheetCount, factor);
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
        return this.selectSeat(instruction.seat);
      case 'force':
        return this.setForce(instruction.value);
      case 'speed':
        this.speed = instruction.value;
        return true;
      case 'travel':
        for (const spot of instruction.points) await this.move(spot, TRAVEL_MM_PER_S);
        return true;
      case 'cut':
        return this.cut(instruction.points);
      case 'end':
        this.report({ event: 'finished', cutMetres: this.cutMm / 1000 });
        return false;
    }
  }

  private begin(): void {
    this.stopReason = null;
    this.strokeCount = 0;
    this.seat = 1;
    this.cutMm = 0;
    this.force = this.loaded?.dialled?.force ?? null;
    this.speed = this.loaded?.dialled?.speed ?? this.speed;
    this.report({ event: 'started' });
  }

  private selectSeat(seat: number): boolean {
    if (seat < 1 || seat > this.model.seats) {
      this.stop(`there is no tool seat ${seat}`);
      return this.endStopped();
    }
    this.seat = seat;
    return true;
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
    if (!this.sheet || !this.loaded) {
      this.stop('no sheet is loaded');
      return this.endStopped();
    }
    if (this.force === null) {
      this.stop('no force was set, by the file or the panel');
      return this.endStopped();
    }
    const path = [this.at, ...points];
    const speedMmPerS = this.speed * this.model.mmPerSPerSpeed;
    for (const spot of points) {
      await this.move(spot, speedMmPerS);
      if (this.stopReason !== null) return this.endStopped();
    }
    const spans = this.seat === this.model.creaseSeat ? PRESSED : this.cutPath(this.sheet, path, speedMmPerS);
    this.report({ event: 'stroke', index: this.strokeCount, spans });
    this.strokeCount += 1;
    return true;
  }

  private cutPath(sheet: CutSheet, path: readonly Spot[], speedMmPerS: number): readonly Span[] {
    const loaded = this.loaded as LoadOrder;
    const bladeMetres = loaded.bladeMetres + this.cutMm / 1000;
    return sheet.cut(path, {
      forceGf: this.model.trueGf(this.force as number),
      speedMmPerS,
      exposureMm: loaded.exposureMm,
      bladeMetres,
    });
  }

  private async move(to: Spot, speedMmPerS: number): Promise<void> {
    const length = Math.hypot(to.xMm - this.at.xMm, to.yMm - this.at.yMm);
    if (speedMmPerS !== TRAVEL_MM_PER_S && this.seat !== this.model.creaseSeat) this.cutMm += length;
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
    this.report({ event: 'stopped', reason });
    return false;
  }
}
