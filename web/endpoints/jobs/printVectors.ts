import { itemAt } from '#core/collections/itemAt.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import type { PlacedLine } from '#core/sheet/nest/placePieces.ts';
import type { PdfPage } from '#web/endpoints/jobs/pdfPage.ts';

/** A stroke whose width the file does not say, mm. */
const HAIR_MM = 0.25;

/**
 * Art of plain colours, shape by shape, filled and stroked as its file says.
 *
 * @param growMm how far every shape is widened, for bleed
 */
export function drawVectors(page: PdfPage, art: readonly PlacedLine[], growMm: number): void {
  for (const lines of groupBy(art, ({ copy, shape }) => `${copy}/${shape}`).values()) {
    const first = itemAt(lines, 0);
    const { fillColour, strokeColour, strokeWidthMm } = first;
    const data = lines.map(({ contour }) => writePathData(contour)).join('');
    if (fillColour)
      page.path(data).fill(fillColour, first.paint?.isEvenOdd === false ? 'non-zero' : 'even-odd');
    const colour = strokeColour ?? (growMm > 0 ? fillColour : null);
    const ownMm = strokeColour ? (strokeWidthMm ?? HAIR_MM) : 0;
    if (!colour || ownMm + growMm <= 0) continue;
    page.save().path(data);
    takePen(page, first, growMm > 0);
    page.lineWidth(ownMm + 2 * growMm).stroke(colour);
    page.restore();
  }
}

/** The pen of a file that says which; a round one for bleed and for files that do not. */
function takePen(page: PdfPage, { paint }: DrawnContour, isRound: boolean): void {
  if (!paint || isRound) {
    page.lineJoin('round').lineCap('round');
    return;
  }
  page.lineJoin(paint.join).lineCap(paint.cap).miterLimit(paint.miterLimit);
  const isBroken = paint.dashMm.some((length) => length > 0);
  // The operator itself: pdfkit's own refuses dashes of no length, which SVG allows.
  if (isBroken) page.addContent(`[${paint.dashMm.join(' ')}] ${paint.dashOffsetMm} d`);
}
