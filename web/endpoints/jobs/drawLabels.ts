import type { Stack } from '#core/stack/layer.ts';
import { OPERATION_WORDS } from '#core/stack/operation.ts';
import { inchFigure, inUnits } from '#core/units/inUnits.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { writeDecimals, type Writing } from '#core/units/writing.ts';
import {
  PAPERS,
  PDF_INK as INK,
  PDF_MUTED as MUTED,
  drawQr,
  PT_PER_MM,
  startPdf,
  type PdfPage as Page,
} from '#web/endpoints/jobs/pdfPage.ts';
import type { SettingSummary } from '#web/schemas/setting.ts';

/** A setting with what its label shows. */
export interface LabelData {
  readonly setting: SettingSummary;
  readonly stack: Stack;
  readonly faceColour: string;
  /** Where scanning the code leads. */
  readonly address: string;
}

/** In which units labels are written, and how. */
interface LabelManner {
  readonly system: UnitSystem;
  readonly writing: Writing;
}

export const CARD = { width: 92 * PT_PER_MM, height: 56 * PT_PER_MM };
const GAP = 4 * PT_PER_MM;
const COLUMNS = 2;
const ROWS = 4;

/** Bench labels at real size, 92 x 56 mm, eight on a sheet of A4 or Letter with lines to cut along. */
export async function drawLabels(labels: readonly LabelData[], manner: LabelManner): Promise<Buffer> {
  const { size } = PAPERS[manner.system];
  const { page: document, finish } = startPdf('Bench labels', size);
  const left = (document.page.width - COLUMNS * CARD.width - GAP) / 2;
  const top = (document.page.height - ROWS * CARD.height - (ROWS - 1) * GAP) / 2;
  for (const [index, label] of labels.entries()) {
    const place = index % (COLUMNS * ROWS);
    if (index > 0 && place === 0) document.addPage({ size, margin: 0 });
    const x = left + (place % COLUMNS) * (CARD.width + GAP);
    const y = top + Math.floor(place / COLUMNS) * (CARD.height + GAP);
    drawLabel(document, label, manner, x, y);
  }
  return finish();
}

function drawLabel(
  page: Page,
  { setting, stack, faceColour, address }: LabelData,
  { system, writing }: LabelManner,
  x: number,
  y: number,
) {
  const { values } = setting.revision;
  const inner = { x: x + 9, width: CARD.width - 18 };
  page.rect(x, y, CARD.width, CARD.height).lineWidth(0.5).stroke('#8d8878');
  page.fillColor(INK).font('bold').fontSize(11);
  page.text(setting.material, inner.x, y + 8, {
    width: inner.width,
    height: 14,
    ellipsis: true,
    lineBreak: false,
  });
  const where = `${OPERATION_WORDS[setting.operation]} · ${setting.machine} · ${setting.bladeKind}`;
  page
    .fillColor(MUTED)
    .font('text')
    .fontSize(8)
    .text(where, inner.x, y + 23, { width: inner.width, lineBreak: false });
  drawFigures(page, setting, { system, writing }, inner.x, y + 37);
  const foot = [
    values.tabForce === undefined
      ? ''
      : `tabs ${values.tabForce}, cut ${values.cutLengthMm} mm, tab ${values.tabLengthMm} mm`,
    `offset ${values.offsetMm} mm`,
    `${setting.state}, rev ${setting.revision.revision}`,
  ];
  const words = writeDecimals(inUnits(foot.filter(Boolean).join(' · '), system), writing);
  page
    .font('text')
    .fontSize(7)
    .text(words, inner.x, y + CARD.height - 24, { width: inner.width, height: 20 });
  drawSection(page, stack, faceColour, x + CARD.width - 88, y + 38);
  drawQr(page, address, x + CARD.width - 52, y + 38, 44);
  page
    .fillColor(MUTED)
    .fontSize(6)
    .text('scan for history', x + CARD.width - 54, y + 84, { width: 50, lineBreak: false });
}

/** What to dial, in two columns. */
function drawFigures(
  page: Page,
  setting: SettingSummary,
  { system, writing }: LabelManner,
  x: number,
  y: number,
): void {
  const { values } = setting.revision;
  const figures: readonly (readonly [string, string])[] = [
    [String(values.force), setting.forceUnit],
    exposureFigure(setting, system),
    [String(values.speed), setting.speedUnit],
    [String(values.passes), values.passes === 1 ? 'pass' : 'passes'],
  ];
  figures.forEach(([figure, unit], index) => {
    const column = x + (index % 2) * 76;
    const row = y + Math.floor(index / 2) * 44;
    page
      .fillColor(INK)
      .font('figure')
      .fontSize(26)
      .text(writeDecimals(figure, writing), column, row, { lineBreak: false });
    page
      .fillColor(MUTED)
      .font('text')
      .fontSize(6.5)
      .text(unit, column, row + 29, { width: 74, lineBreak: false });
  });
}

function exposureFigure(
  { operation, exposureWords, revision: { values } }: SettingSummary,
  system: UnitSystem,
): readonly [string, string] {
  const mm = values.exposureMm.toFixed(2);
  const [figure, unit] = system === 'inch' ? [inchFigure(mm, 'mm'), 'in'] : [mm, 'mm'];
  return [operation === 'crease' ? '–' : figure, `${unit} · ${exposureWords}`];
}

const LAYER_FILLS: Readonly<Record<string, string>> = {
  laminate: '#e9f1f4',
  ink: '#33475a',
  adhesive: '#e7d9b0',
  liner: '#fbfaf6',
};

/** The stack to scale among its own layers, 60 points high, the liner hatched. */
function drawSection(page: Page, stack: Stack, faceColour: string, x: number, y: number): void {
  const [width, height] = [28, 60];
  const total = stack.reduce((sum, { caliperUm }) => sum + caliperUm, 0);
  let top = y;
  for (const { role, caliperUm } of stack) {
    const tall = (caliperUm / total) * height;
    page
      .rect(x, top, width, tall)
      .lineWidth(0.4)
      .fillAndStroke(LAYER_FILLS[role] ?? faceColour, INK);
    if (role === 'liner') {
      page.save().rect(x, top, width, tall).clip();
      for (let at = -height; at < width; at += 5) {
        page.moveTo(x + at, top + tall).lineTo(x + at + tall, top);
      }
      page.lineWidth(0.3).stroke('#a9a491').restore();
    }
    top += tall;
  }
}
