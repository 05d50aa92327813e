import type { PointMm } from '#core/geometry/point.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Stroke } from '#core/passes/plan.ts';
import type { SettingValues } from '#core/setting/setting.ts';

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

/** What is written of a pass. `seat` selects the tool; the first where none is named. */
export interface WrittenPass {
  readonly values: SettingValues;
  readonly strokes: readonly Stroke[];
  readonly seat?: number;
}

/**
 * Writes passes as HPGL: absolute coordinates, origin at the lower left of the sheet, y upwards. `VS` and `FS` carry
 * speed and force in the machine's own scales and change along tabs; a stroke is one pen-down polyline, begun by a
 * pen-up move unless it goes on where the last one ended; `SP` selects the tool seat.
 *
 * @param sheetHeightMm turns drawing coordinates (y downwards) into plotter ones
 * @returns printable ASCII ending in a line feed
 */
export function writeHpgl(
  passes: readonly WrittenPass[],
  sheetHeightMm: number,
  options: HpglOptions,
): string {
  const toPlotter = ({ x, y }: PointMm) =>
    `${Math.round(x * options.unitsPerMm)},${Math.round((sheetHeightMm - y) * options.unitsPerMm)}`;
  let seat = passes[0]?.seat ?? 1;
  const lines = [`IN;PA;SP${seat};`];
  let at = '';
  for (const pass of passes) {
    if ((pass.seat ?? 1) !== seat) {
      seat = pass.seat ?? 1;
      lines.push(`PU;SP${seat};`);
      at = '';
    }
    if (options.carriesNumbers) lines.push(`VS${plain(pass.values.speed)};`);
    let force: number | null = null;
    for (const stroke of pass.strokes) {
      const wanted = stroke.isTab ? (pass.values.tabForce ?? pass.values.force) : pass.values.force;
      const [first = '', ...rest] = stroke.points.map(toPlotter);
      const lift = first === at ? '' : `PU${first};`;
      const press = options.carriesNumbers && wanted !== force ? `FS${plain(wanted)};` : '';
      force = wanted;
      lines.push(`${press}${lift}PD${rest.join(',')};`);
      at = rest.at(-1) ?? first;
    }
  }
  lines.push(`PU0,0;SP0;`);
  return `${lines.join('\n')}\n`;
}

/** At most two decimals, none where they are zero. */
function plain(value: number): string {
  return String(Number(value.toFixed(2)));
}
