import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';

/** A printed sheet on the table between the printer and the cutters. */
const traySheet = z.object({
  widthMm: z.number().positive(),
  heightMm: z.number().positive(),
  /** How much larger than asked it came out, and by how much the print is turned on the paper. */
  scale: z.number().positive(),
  turnRad: z.number(),
  /** Until then the ink smears under rollers. */
  wetUntil: z.iso.datetime(),
});
export type TraySheet = z.infer<typeof traySheet>;

/** Sheets of one size differ by less, mm. */
const SAME_SIZE_MM = 2;

/** Puts a sheet on the table, which is a folder. @param order sheets are taken in the order of their numbers */
export function layInTray(folder: string, order: number, sheet: TraySheet): void {
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, `sheet-${String(order).padStart(6, '0')}.json`), JSON.stringify(sheet));
}

/** Takes the first sheet of a size off the table, either way round; `null` when none lies there. */
export function takeFromTray(folder: string, widthMm: number, heightMm: number): TraySheet | null {
  for (const file of listFiles(folder)) {
    const path = join(folder, file);
    const sheet = readSheet(path);
    if (!sheet) continue;
    const isSame = (width: number, height: number) =>
      Math.abs(width - widthMm) < SAME_SIZE_MM && Math.abs(height - heightMm) < SAME_SIZE_MM;
    if (!isSame(sheet.widthMm, sheet.heightMm) && !isSame(sheet.heightMm, sheet.widthMm)) continue;
    rmSync(path, { force: true });
    return sheet;
  }
  return null;
}

function listFiles(folder: string): readonly string[] {
  try {
    return readdirSync(folder)
      .filter((file) => file.endsWith('.json'))
      .sort();
  } catch {
    return [];
  }
}

/** `null` for a file that another process took, or has not written yet. */
function readSheet(path: string): TraySheet | null {
  try {
    return traySheet.parse(JSON.parse(readFileSync(path, 'utf8')));
  } catch {
    return null;
  }
}
