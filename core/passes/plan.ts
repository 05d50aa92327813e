import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { RouteStep } from '#core/passes/routeSteps.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Carried, MachineKind, SeatUse, ToolSeat } from '#core/station/machine.ts';
import type { FreeingWay } from '#core/passes/compareFreeing.ts';
import type { ForceScale } from '#core/units/forceScale.ts';
import type { SpeedScale } from '#core/units/speedScale.ts';

/** What a plan needs to know of the machine. */
export interface PlanMachine {
  readonly kind: MachineKind;
  readonly speedScale: SpeedScale;
  readonly forceScale: ForceScale;
  readonly accelerationMmPerS2: number;
  readonly travelSpeedMmPerS: number;
  readonly toolSeats: readonly ToolSeat[];
  /** Whether hands set the exposure of the blade. */
  readonly exposesByHand: boolean;
  /** Which numbers the file sets. Without the force none can change along tabs: the tool is lifted over them. */
  readonly carries: Carried;
  /** Whether the file chooses among tool seats; otherwise hands do, at a stop. */
  readonly choosesSeats: boolean;
  /** Whether the machine perforates by itself where it is asked to. */
  readonly perforation: 'native' | 'drawn';
  /** It prints as well as cuts. */
  readonly hasPrinter: boolean;
}

/** Tabs that the machine makes by itself along a whole outline: half a cut, tab, cut, tab, … half a cut. */
export interface OwnTabs {
  readonly cutLengthMm: number;
  readonly tabLengthMm: number;
  /** The same outline by stretches, for pictures; a run keeps them not. */
  readonly stretches?: readonly { readonly points: readonly PointMm[]; readonly isTab: boolean }[];
}

/** One stroke with the tool down: a contour, a repeat of it, or a stretch of a perforated one. */
export interface Stroke {
  readonly contourId: number;
  readonly repeat: number;
  readonly points: readonly PointMm[];
  /** Along a tab: cut with the tab force. It follows the stroke before without a lift. */
  readonly isTab: boolean;
  /** The machine lifts the tool over tabs of its own along it. */
  readonly ownTabs?: OwnTabs | undefined;
}

/** What became of the outlines of a perforated pass. */
export interface PassPerforation {
  readonly tabs: number;
  /** Tabs that were moved off corners. */
  readonly moved: number;
  /** Outlines too small for tabs: only kissed, with the reason. */
  readonly kissOnly: readonly { readonly contourId: number; readonly reason: string }[];
}

/** All strokes of one role with its setting. */
export interface Pass {
  readonly role: CutRole;
  readonly operation: Operation;
  readonly values: SettingValues;
  readonly strokes: readonly Stroke[];
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  /** Which tool seat, from 1, and what sits there. */
  readonly seat: number;
  readonly seatName: string;
  /** The numbered cut of the panel that it runs with, where the panel holds several. */
  readonly panelCut?: number | undefined;
  /** What sits in each seat while it is cut. */
  readonly fitted: readonly SeatUse[];
  /** Whether hands set the exposure before it. */
  readonly setsExposure: boolean;
  readonly perforation: PassPerforation | null;
  /** What the hands must do before it, or `null` when the machine goes straight on. */
  readonly pauseBefore: string | null;
  /** What to look at before the sheet is moved. */
  readonly lookAfter: string;
}

/** A job as the machine will run it, one sheet of it. */
export interface Plan {
  readonly passes: readonly Pass[];
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  /** Where the order chosen by hand breaks a rule, in words. */
  readonly violations: readonly string[];
  /** How many passes come before the sheet is printed; `null` when nothing is printed. */
  readonly printAfter: number | null;
}

/** What a person chose for the passes of a job; `null` leaves it to the rules. */
export interface PassChoices {
  readonly order: readonly RouteStep[] | null;
  readonly cutLengthMm: number | null;
  readonly tabLengthMm: number | null;
  /** The file leads the trailing tip; false where the machine does so itself. */
  readonly compensatesOffset: boolean;
  /** A machine that can perforates by itself, in even periods; otherwise tabs are drawn, off corners. */
  readonly perforatesNatively?: boolean | undefined;
  /** How outlines are cut through in this job; left out, as their setting says. */
  readonly freeing?: Exclude<FreeingWay, 'perforated'> | undefined;
  /** Roles before whose pass the run stops, by hand's wish. */
  readonly pausesBefore?: readonly CutRole[] | undefined;
}

export const PLAIN_CHOICES: PassChoices = {
  order: null,
  cutLengthMm: null,
  tabLengthMm: null,
  compensatesOffset: false,
};
