import type { PointMm } from '#core/geometry/point.ts';
import { placePoint, type CutProgram, type CutStroke } from '#core/program/cutProgram.ts';
import type { Block } from '#core/protocol/machineLanguage.ts';

/**
 * Writes a program as HPGL: absolute coordinates, origin at the lower left of the sheet, y upwards. `VS` and `FS` carry
 * speed and force in the machine's own scales and change along tabs; a stroke is one pen-down polyline, begun by a
 * pen-up move unless it goes on where the last one ended; `SP` selects the tool seat, or the numbered cut of a panel; tabs that the machine makes by
 * itself are a line type (`UL`, `LT`).
 *
 * @param unitsPerMm the machine's addressing, 40 for most: a unit is 0.025 mm
 * @returns a block for each stroke, between one that begins and one that ends
 * @example writeHpgl({ passes: [], sheetHeightMm: 297, carries: { force: true, speed: true }, mmPerSPerUnit: 1 }, 40).length > 0 // true
 */
export function writeHpgl(program: CutProgram, unitsPerMm: number): readonly Block[] {
  const { passes, carries } = program;
  const toPlotter = (point: PointMm) => {
    const { x, y } = placePoint(point, program);
    return `${Math.round(x * unitsPerMm)},${Math.round(y * unitsPerMm)}`;
  };
  let tool = toolOf(passes[0]);
  let head = `IN;PA;SP${tool};\n`;
  let at = '';
  const blocks: Block[] = [];
  for (const pass of passes) {
    if (toolOf(pass) !== tool) {
      tool = toolOf(pass);
      head += `PU;SP${tool};\n`;
      at = '';
    }
    if (carries.speed) head += `VS${plain(pass.values.speed)};\n`;
    let force: number | null = null;
    for (const stroke of pass.strokes) {
      const wanted = stroke.isTab ? (pass.values.tabForce ?? pass.values.force) : pass.values.force;
      const [first = '', ...rest] = stroke.points.map(toPlotter);
      const lift = first === at ? '' : `PU${first};`;
      const press = carries.force && wanted !== force ? `FS${plain(wanted)};` : '';
      force = wanted;
      const pattern = carries.force && stroke.ownTabs ? writePattern(stroke.ownTabs) : null;
      const down = `PD${rest.join(',')};`;
      const line = `${press}${lift}${pattern ? `${pattern}${down}LT;` : down}\n`;
      blocks.push({ text: head + line, strokesDone: blocks.length + 1 });
      head = '';
      at = rest.at(-1) ?? first;
    }
  }
  return [...blocks, { text: `${head}PU0,0;SP0;\n`, strokesDone: blocks.length }];
}

/** The number after SP: a numbered cut of the panel where it holds several, else the tool seat. */
function toolOf(pass: CutProgram['passes'][number] | undefined): number {
  return pass?.panelCut ?? pass?.seat ?? 1;
}

/**
 * The machine's own perforation as a line type: its stretches in percent of a period, down, up, down.
 * Source: line types of HPGL/2 (UL and LT), where a length in mm is mode 1.
 */
function writePattern({ cutLengthMm, tabLengthMm }: NonNullable<CutStroke['ownTabs']>): string {
  const periodMm = cutLengthMm + tabLengthMm;
  const tab = (100 * tabLengthMm) / periodMm;
  const half = (100 - tab) / 2;
  return `UL1,${half.toFixed(3)},${tab.toFixed(3)},${half.toFixed(3)};LT1,${periodMm.toFixed(4)},1;`;
}

/** At most two decimals, none where they are zero. */
function plain(value: number): string {
  return String(Number(value.toFixed(2)));
}
