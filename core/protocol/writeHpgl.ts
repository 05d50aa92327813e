import type { PointMm } from '#core/geometry/point.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Pass } from '#core/passes/planPasses.ts';

/** Plotter units in one millimetre: a unit is 0.025 mm. */
export const HPGL_UNITS_PER_MM = 40;

/** How one machine wants its file. */
export interface HpglOptions {
  /** The machine's addressing, 40 for most. */
  readonly unitsPerMm: number;
  /** False where the machine's panel owns force and speed: then neither is written. */
  readonly carriesNumbers: boolean;
}

/** The options that follow from a machine's facts. */
export function hpglOptionsOf(machine: Pick<Machine, 'hpglUnitsPerMm' | 'numbersOwner'>): HpglOptions {
  return { unitsPerMm: machine.hpglUnitsPerMm, carriesNumbers: machine.numbersOwner === 'file' };
}

/**
 * Writes passes as HPGL: absolute coordinates, origin at the lower left of the sheet, y upwards. `VS` and `FS` carry
 * speed and force per pass in the machine's own scales; every stroke is one pen-up move and one pen-down polyline.
 *
 * @param sheetHeightMm turns drawing coordinates (y downwards) into plotter ones
 * @returns printable ASCII ending in a line feed
 */
export function writeHpgl(
  passes: readonly Pick<Pass, 'values' | 'strokes'>[],
  sheetHeightMm: number,
  options: HpglOptions,
): string {
  const toPlotter = ({ x, y }: PointMm) =>
    `${Math.round(x * options.unitsPerMm)},${Math.round((sheetHeightMm - y) * options.unitsPerMm)}`;
  const lines = ['IN;PA;SP1;'];
  for (const pass of passes) {
    if (options.carriesNumbers) lines.push(`VS${plain(pass.values.speed)};FS${plain(pass.values.force)};`);
    for (const stroke of pass.strokes) {
      const [first, ...rest] = stroke.points.map(toPlotter);
      lines.push(`PU${first};PD${rest.join(',')};`);
    }
  }
  lines.push(`PU0,0;SP0;`);
  return `${lines.join('\n')}\n`;
}

/** At most two decimals, none where they are zero. */
function plain(value: number): string {
  return String(Number(value.toFixed(2)));
}
