import type { Drawing, DrawingFormat, ReadProgress } from '#core/drawing/drawing.ts';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { readHpgl } from '#core/protocol/hpgl/readHpgl.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';

const READERS = { svg: readSvg, dxf: readDxf, hpgl: readHpgl } as const;

/**
 * Reads a drawing of a known kind.
 *
 * @throws AppError `badDrawing` or `tooLarge`, with line and reason
 * @example readDrawing('hpgl', 'IN;SP1;PU0,0;PD400,0;').contours.length // 1
 */
export function readDrawing(format: DrawingFormat, text: string, onProgress?: ReadProgress): Drawing {
  return READERS[format](text, onProgress);
}

/**
 * What kind of file this is, by how it begins; its name only decides where the beginning does not.
 *
 * @returns `null` for none that is read
 * @example sniffFormat('IN;SP1;', 'card.plt') // 'hpgl'
 */
export function sniffFormat(text: string, fileName: string): DrawingFormat | null {
  const start = text
    .slice(0, 4000)
    .replace(/^\uFEFF/, '')
    .trimStart();
  if (start.startsWith('<')) return 'svg';
  if (/^(999\r?\n.*\r?\n\s*)*0\r?\n\s*SECTION/.test(start) || start.startsWith('AutoCAD Binary DXF'))
    return 'dxf';
  if (/^(\u001b|@PJL|(IN|DF|PA|PU|SP|PD|CO|IP|SC|RO|PE|BP|PS)[\s;\d,"-])/i.test(start)) return 'hpgl';
  const ending = /\.(svg|dxf|hpgl|plt)$/i.exec(fileName)?.[1]?.toLowerCase();
  return ending === 'plt' ? 'hpgl' : ((ending as DrawingFormat | undefined) ?? null);
}
