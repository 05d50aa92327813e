import type { TravellingSheet } from '#core/book/travellingSheet.ts';
import { CARD } from '#web/endpoints/jobs/drawLabels.ts';
import { drawQr, PDF_INK, PDF_MUTED, PT_PER_MM, startPdf } from '#web/endpoints/jobs/pdfPage.ts';
import type { SheetCodeReply } from '#web/schemas/sheetCode.ts';

const MARGIN = 4 * PT_PER_MM;

/** A label of 92 x 56 mm: what the sheet is, and its settings as a code as high as the label. */
export function drawSheetCode(
  { material, machines }: TravellingSheet,
  { code, settings, leftOut }: SheetCodeReply,
): Promise<Buffer> {
  const { page, finish } = startPdf(`Settings of ${material.name}`, [CARD.width, CARD.height]);
  const side = CARD.height - 2 * MARGIN;
  const width = CARD.width - side - 3 * MARGIN;
  page
    .fillColor(PDF_INK)
    .font('bold')
    .fontSize(10)
    .text(material.name, MARGIN, MARGIN, { width, height: 40, ellipsis: true });
  const told = [
    material.maker,
    `${settings} ${settings === 1 ? 'setting' : 'settings'}${leftOut > 0 ? `, ${leftOut} without room` : ''}`,
    machines.map(({ name }) => name).join(', '),
  ];
  page
    .fillColor(PDF_MUTED)
    .font('text')
    .fontSize(7)
    .text(told.join('\n'), { width, height: 60, ellipsis: true, lineGap: 2 });
  page.text('Read it with Read a code in Pale Feather', MARGIN, CARD.height - MARGIN - 18, {
    width,
    height: 20,
  });
  drawQr(page, code, CARD.width - side - MARGIN, MARGIN, side, 'L');
  return finish();
}
