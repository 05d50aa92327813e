import { IDENTITY, mapPoint, type Affine } from '#core/geometry/affine.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Machine } from '#core/station/machine.ts';
import type { NativeTabs, Stroke } from '#core/passes/plan.ts';
import type { SettingValues } from '#core/setting/setting.ts';

/** Plotter units in one millimetre: a unit is 0.025 mm. */
export const HPGL_UNITS_PER_MM = 40;

/** How one machine wants its file. */
export interface HpglOptions {
  /** The machine's addressing, 40 for most. */
  readonly unitsPerMm: number;
  /** False where the machine's panel owns force and speed: then neither is written. */
  readonly carriesNumbers: boolean;
  /** Where a sheet lies under the tool; left out, its lower left corner is the machine's origin. */
  readonly placing?: SheetPlacing;
}

/** Where a sheet lies on its mat, and what is corrected of the shift between print and cut. */
export interface SheetPlacing {
  readonly leftMm: number;
  readonly bottomMm: number;
  /** In the sheet's own coordinates, mm, y downwards. */
  readonly correction: Affine;
}

/** The options that follow from a machine's facts. */
export function hpglOptionsOf(
  machine: Pick<Machine, 'hpglUnitsPerMm' | 'numbersOwner'>,
  placing?: SheetPlacing,
): HpglOptions {
  const options = { unitsPerMm: machine.hpglUnitsPerMm, carriesNumbers: machine.numbersOwner === 'file' };
  return placing ? { ...options, placing } : options;
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
 * pen-up move unless it goes on where the last one ended; `SP` selects the tool seat; tabs that the machine makes by
 * itself are a line type (`UL`, `LT`).
 *
 * @param sheetHeightMm turns drawing coordinates (y downwards) into plotter ones
 * @returns printable ASCII ending in a line feed
 */
export function writeHpgl(
  passes: readonly WrittenPass[],
  sheetHeightMm: number,
  options: HpglOptions,
): string {
  const { unitsPerMm, placing } = options;
  const { leftMm = 0, bottomMm = 0, correction = IDENTITY } = placing ?? {};
  const toPlotter = (point: PointMm) => {
    const { x, y } = mapPoint(correction, point);
    return `${Math.round((x + leftMm) * unitsPerMm)},${Math.round((sheetHeightMm - y + bottomMm) * unitsPerMm)}`;
  };
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
      const pattern = options.carriesNumbers && stroke.native ? writePattern(stroke.native) : null;
      const down = `PD${rest.join(',')};`;
      lines.push(`${press}${lift}${pattern ? `${pattern}${down}LT;` : down}`);
      at = rest.at(-1) ?? first;
    }
  }
  lines.push(`PU0,0;SP0;`);
  return `${lines.join('\n')}\n`;
}

/**
 * The machine's own perforation as a line type: its stretches in percent of a period, down, up, down.
 * Source: line types of HPGL/2 (UL and LT), where a length in mm is mode 1.
 */
function writePattern({ cutLengthMm, tabLengthMm }: NativeTabs): string {
  const periodMm = cutLengthMm + tabLengthMm;
  const tab = (100 * tabLengthMm) / periodMm;
  const half = (100 - tab) / 2;
  return `UL1,${half.toFixed(3)},${tab.toFixed(3)},${half.toFixed(3)};LT1,${periodMm.toFixed(4)},1;`;
}

/** At most two decimals, none where they are zero. */
function plain(value: number): string {
  return String(Number(value.toFixed(2)));
}
