import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import type { DepthScale } from '#core/units/depthScale.ts';
import type { ForceScale } from '#core/units/forceScale.ts';
import type { SpeedScale } from '#core/units/speedScale.ts';

/** How a sheet travels: on a sticky mat, as a roll between pinch rollers, or not at all. */
export const MACHINE_KINDS = ['matFed', 'rollFed', 'flatbed'] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

/** Where a machine file goes. A stand-in is one of the practice cutters that ship with the application. */
export type MachineLink =
  | { readonly kind: 'none' }
  | { readonly kind: 'standIn'; readonly model: StandInModel }
  | { readonly kind: 'address'; readonly host: string; readonly port: number }
  | SerialLink
  | { readonly kind: 'device'; readonly path: string };

/** The practice cutters: a mat-fed desk cutter, a roll-fed cutter, a flatbed. */
export const STAND_IN_MODELS = ['desk', 'roll', 'flat'] as const;
export type StandInModel = (typeof STAND_IN_MODELS)[number];

/** A serial line. `handshake`: how the machine says that it can take no more. */
export interface SerialLink {
  readonly kind: 'serial';
  readonly path: string;
  readonly baudRate: number;
  readonly handshake: (typeof HANDSHAKES)[number];
}
export const HANDSHAKES = ['none', 'wires', 'characters'] as const;
export const BAUD_RATES = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200, 250_000] as const;

/** The language a machine is told its work in, by its id, with the options that language has. */
export interface LanguageChoice {
  readonly id: string;
  readonly options: Readonly<Record<string, unknown>>;
}

/** Which numbers go to a machine with the lines; what does not is set by hand there. */
export interface Carried {
  readonly force: boolean;
  readonly speed: boolean;
}

/** What a seat of the carriage can hold. */
export const SEAT_USES = ['blade', 'crease', 'pen', 'empty'] as const;
export type SeatUse = (typeof SEAT_USES)[number];

/** What runs under a seat: a strip that a cut must not go through, or a groove that takes the tip. */
export const SEAT_GROUNDS = ['strip', 'groove'] as const;
export type SeatGround = (typeof SEAT_GROUNDS)[number];

/** A place for a tool on the carriage, and what sits there. */
export interface ToolSeat {
  readonly name: string;
  readonly holds: SeatUse;
  readonly tool: string;
  /** What runs under it; left out where it makes no difference. */
  readonly over?: SeatGround | undefined;
  /** The only operations it may do, where the workshop says so; else those that suit what runs under it. */
  readonly does?: readonly Operation[] | undefined;
}

/** How the machine finds a printed sheet: marks at so many corners, or none. */
export const MARK_SCHEMES = ['none', 'threeCorners', 'fourCorners'] as const;
/** What its sensor looks for: two bars at an angle, a filled disc, a cross. */
export const MARK_SHAPES = ['angle', 'disc', 'cross'] as const;
export type MarkShape = (typeof MARK_SHAPES)[number];

/** The marks that a machine reads. What is left out is as {@link wholeMarks} says. */
export interface MarkScheme {
  readonly scheme: (typeof MARK_SCHEMES)[number];
  readonly shape?: MarkShape | undefined;
  /** The length of a bar or a cross, the diameter of a disc. */
  readonly lengthMm: number;
  /** Of bars and crosses. */
  readonly thicknessMm: number;
  /** From the edges of the sheet to the nearest ink of a mark. */
  readonly insetMm: number;
  /** Marks along each long side of the sheet, those at its corners among them. */
  readonly alongSide?: number | undefined;
  /** What the sensor needs clear around a mark. */
  readonly clearMm?: number | undefined;
}

/** The area that can be printed and then cut on a sheet of this name, mm. */
export interface PrintAndCutArea {
  readonly sheet: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A cutting machine with its scales and limits. */
export interface Machine {
  readonly id: number;
  readonly name: string;
  readonly kind: MachineKind;
  readonly bedWidthMm: number;
  readonly bedLengthMm: number;
  readonly marginMm: number;
  readonly forceScale: ForceScale;
  readonly speedScale: SpeedScale;
  readonly depthScale: DepthScale;
  readonly accelerationMmPerS2: number;
  readonly travelSpeedMmPerS: number;
  /** Whose numbers count: never silently both. */
  readonly numbersOwner: 'file' | 'panel';
  /** How many numbered cuts its panel holds, each dialled once and chosen by the file; left out, one. */
  readonly panelCuts?: number | undefined;
  readonly language: LanguageChoice;
  /** Steps in a mm of a language that counts in them: told for scripts from before there was a choice. */
  readonly hpglUnitsPerMm?: number | undefined;
  readonly link: MachineLink;
  readonly operations: readonly Operation[];
  readonly toolSeats: readonly ToolSeat[];
  /** Whether the machine perforates by itself, or tabs are drawn into the lines. */
  readonly perforation: 'native' | 'drawn';
  readonly marks: MarkScheme;
  readonly printAndCut: readonly PrintAndCutArea[];
  /** Roll-fed: positions of the pinch rollers' pressure, lowest first, and whether it has suction. */
  readonly pinchPositions: readonly string[];
  readonly hasSuction: boolean;
  /** Where a sheet is loaded to, as hands find it: "the wheel on the 5 of the mat"; empty where nobody said. */
  readonly loadTo?: string | undefined;
  /** It prints as well as cuts, so that a sheet may be creased before it is printed. */
  readonly hasPrinter: boolean;
  readonly version: number;
  readonly isArchived: boolean;
}

/** What a machine is until somebody says more. */
export const PLAIN_EQUIPMENT = {
  operations: OPERATIONS,
  toolSeats: [{ name: 'holder', holds: 'blade', tool: '' }],
  perforation: 'drawn',
  marks: { scheme: 'none', lengthMm: 20, thicknessMm: 1, insetMm: 10 },
  printAndCut: [],
  pinchPositions: [],
  hasSuction: false,
  hasPrinter: false,
} as const satisfies Partial<Machine>;

/** The words for each kind. */
export const MACHINE_KIND_NAMES: Readonly<Record<MachineKind, string>> = {
  matFed: 'mat-fed desk cutter',
  rollFed: 'roll-fed cutter',
  flatbed: 'flatbed cutter',
};
