import type { DepthScale } from '#core/units/depthScale.ts';
import type { ForceScale } from '#core/units/forceScale.ts';
import type { SpeedScale } from '#core/units/speedScale.ts';

/** How a sheet travels: on a sticky mat, or as a roll between pinch rollers. */
export const MACHINE_KINDS = ['matFed', 'rollFed'] as const;
export type MachineKind = (typeof MACHINE_KINDS)[number];

/** Where a machine file goes. A stand-in is one of the practice cutters that ship with the application. */
export type MachineLink =
  | { readonly kind: 'none' }
  | { readonly kind: 'standIn'; readonly model: 'desk' | 'roll' }
  | { readonly kind: 'address'; readonly host: string; readonly port: number };

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
  readonly hpglUnitsPerMm: number;
  readonly link: MachineLink;
}

/** The words for each kind. */
export const MACHINE_KIND_NAMES: Readonly<Record<MachineKind, string>> = {
  matFed: 'mat-fed desk cutter',
  rollFed: 'roll-fed cutter',
};
