import type { HoldFacts } from '#devices/cutter/hold.ts';
import type { PrintedFacts } from '#devices/cutter/sheet/printedMarks.ts';
import type { LoadedSheetFacts } from '#devices/cutter/sheet/sheetTruth.ts';

/** What hands do at the machine: put a sheet in, fit a blade, turn the exposure, dial the panel. */
export interface LoadOrder {
  readonly sheet: LoadedSheetFacts;
  readonly exposureMm: number;
  readonly bladeMetres: number;
  /** False when the same sheet stays in, between two parts of one job. */
  readonly isFreshSheet: boolean;
  /** How it is held; left out, nothing creeps and nothing comes loose. */
  readonly hold?: HoldFacts | undefined;
  readonly printed?: PrintedFacts | undefined;
  /** What sits in each seat, and what runs under it; left out, everything sits where the model has it. */
  readonly seats?: readonly FittedSeat[] | undefined;
  /** What is dialled at the panel, where the panel owns the numbers. */
  readonly dialled?: { readonly force: number; readonly speed: number } | undefined;
  /** The numbered cuts of the panel as they are dialled: the file chooses one by its tool number. */
  readonly panelCuts?: readonly DialledCut[] | undefined;
}

/** One numbered cut as it is dialled. */
export interface DialledCut {
  readonly number: number;
  /** The tool seat that it uses, from 1. */
  readonly seat?: number | undefined;
  readonly force: number;
  readonly speed: number;
}

/** A tool in its seat: over the strip nothing is cut through, over the groove nothing holds the sheet up. */
export interface FittedSeat {
  readonly tool: 'blade' | 'crease' | 'pen' | 'empty';
  readonly over: 'strip' | 'groove' | null;
}
