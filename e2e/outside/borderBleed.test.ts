import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { startBorder } from '#core/job/jobBorder.ts';
import { groupLines } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import type { Job } from '#core/job/job.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';
import { drawPrintSheet } from '#web/endpoints/jobs/drawPrintSheet.ts';

/** The colour of a border goes on beyond the cut as far as the bleed, and no further: by the pixels of the page. */
const DPI = 300;
const MIDDLE_MM = 60;

it.each([
  [0, 12],
  [1, 13],
  [2, 14],
])(
  'a border of 2 mm around a disc of 10 mm, bleed %i mm, is inked out to %i mm',
  async (bleedMm, inkedTo) => {
    const source =
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><circle cx="20" cy="20" r="10" fill="none" stroke="#000000"/><circle cx="20" cy="20" r="9" fill="#2277aa"/></svg>';
    const drawing = readSvg(source);
    const roles = Object.fromEntries(
      groupLines(drawing).map(({ key }) => [key, key.includes('#000000') ? 'kiss' : 'art'] as const),
    );
    const border = { byMm: 2, closesMm: 0, backing: 'outline', colour: '#e3b23c' } as const;
    const started = startBorder({ roles, lineRoles: {}, edits: [] }, drawing, border);
    const corner = { xMm: MIDDLE_MM - 10, yMm: MIDDLE_MM - 10 };
    const print = { hasMarks: false, bleedMm, keepsTestCorner: false };
    const job = {
      ...sampleDesign(source, roles, corner, { ...started, print }),
      name: 'disc',
      id: 1,
    } as unknown as Job;
    const pdf = await drawPrintSheet(job, layOutJob(job, { marks: { scheme: 'none' } as never }), 0, '');
    const colourAt = await openPage(pdf);
    expect(colourAt(5)).toBe('art');
    expect(colourAt(10.5)).toBe('border');
    expect(colourAt(inkedTo - 0.3)).toBe('border');
    expect(colourAt(inkedTo + 0.3)).toBe('paper');
  },
);

/** Tells the colour of a page at a distance to the right of the middle of the disc, mm. */
async function openPage(pdf: Buffer): Promise<(mm: number) => string> {
  const folder = mkdtempSync(join(tmpdir(), 'feather-border-'));
  try {
    writeFileSync(join(folder, 'page.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', String(DPI), '-png', '-singlefile', 'page.pdf', 'page'], { cwd: folder });
    const { data, info } = await sharp(readFileSync(join(folder, 'page.png')))
      .removeAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const px = (mm: number) => Math.round((mm / 25.4) * DPI);
    const names = [
      ['art', [0x22, 0x77, 0xaa]],
      ['border', [0xe3, 0xb2, 0x3c]],
      ['paper', [255, 255, 255]],
    ] as const;
    return (mm) => {
      const at = (px(MIDDLE_MM) * info.width + px(MIDDLE_MM + mm)) * info.channels;
      const seen = [...data.subarray(at, at + 3)];
      const off = (colour: readonly number[]) =>
        colour.reduce((sum, one, channel) => sum + Math.abs(one - (seen[channel] ?? 0)), 0);
      return [...names].sort((a, b) => off(a[1]) - off(b[1]))[0]![0];
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}
