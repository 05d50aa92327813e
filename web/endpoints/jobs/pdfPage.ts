import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import { MM_PER_INCH, type UnitSystem } from '#core/units/length.ts';

export type PdfPage = InstanceType<typeof PDFDocument>;

export const PT_PER_MM = 72 / 25.4;
/** The paper that lies in the printers of a bench: A4, or Letter where it counts in inches. */
export const PAPERS = {
  metric: { size: 'A4', widthMm: 210, heightMm: 297 },
  inch: { size: 'LETTER', widthMm: 8.5 * MM_PER_INCH, heightMm: 11 * MM_PER_INCH },
} as const satisfies Record<UnitSystem, { size: string; widthMm: number; heightMm: number }>;

export const PDF_INK = '#1e2a32';
export const PDF_MUTED = '#56636b';

/** A PDF being drawn, with our fonts as `text`, `bold` and `figure`. */
export function startPdf(
  title: string,
  size: 'A4' | 'LETTER' | readonly [widthPt: number, heightPt: number] = 'A4',
): { readonly page: PdfPage; readonly finish: () => Promise<Buffer> } {
  const page = new PDFDocument({
    size: typeof size === 'string' ? size : [...size],
    margin: 0,
    info: { Title: title, Creator: 'Pale Feather' },
  });
  page.registerFont('text', fontFile('next', 400)).registerFont('bold', fontFile('next', 700));
  page.registerFont('figure', fontFile('mono', 700));
  const chunks: Buffer[] = [];
  page.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise((resolve) => page.on('end', resolve));
  const finish = async () => {
    page.end();
    await ended;
    return Buffer.concat(chunks);
  };
  return { page, finish };
}

/**
 * A QR code of `size` points, without its quiet zone.
 *
 * @param correction how much of it may be spoilt: `M` where it hangs at a bench, `L` where it holds much
 */
export function drawQr(
  page: PdfPage,
  text: string,
  x: number,
  y: number,
  size: number,
  correction: 'L' | 'M' = 'M',
): void {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: correction });
  const cell = size / modules.size;
  for (let row = 0; row < modules.size; row++) {
    for (let column = 0; column < modules.size; column++) {
      if (modules.get(row, column)) page.rect(x + column * cell, y + row * cell, cell, cell);
    }
  }
  page.fill(PDF_INK);
}

/** A picture that is held in the file once, however often it is drawn. */
export type PdfPicture = Parameters<PdfPage['image']>[0];

/** @param picture PNG or JPEG */
export function openPdfPicture(page: PdfPage, picture: Buffer): PdfPicture {
  // Part of pdfkit, and documented there; its types leave it out.
  return (page as PdfPage & { openImage: (source: Buffer) => PdfPicture }).openImage(picture);
}

const require = createRequire(import.meta.url);

function fontFile(family: 'next' | 'mono', weight: 400 | 700): Buffer {
  const name = `atkinson-hyperlegible-${family}`;
  return readFileSync(require.resolve(`@fontsource/${name}/files/${name}-latin-${weight}-normal.woff`));
}
