import type { RunSheet } from '#core/job/composeRunSheet.ts';
import type { RunStep } from '#core/job/runStep.ts';
import type { UnitSystem } from '#core/units/length.ts';
import {
  PAPERS,
  PDF_INK,
  PDF_MUTED,
  PT_PER_MM,
  startPdf,
  type PdfPage,
} from '#web/endpoints/jobs/pdfPage.ts';

const LEFT = 16 * PT_PER_MM;
const TOP = 15 * PT_PER_MM;
const BOX = 14;

/** A run sheet on the paper of the bench: headings, tick boxes, big figures, cautions at the end. */
export async function drawRunSheet(sheet: RunSheet, system: UnitSystem): Promise<Buffer> {
  const { page, finish } = startPdf(`${sheet.title}, run sheet`, PAPERS[system].size);
  const pen = new SheetPen(page, system);
  pen.write('bold', 20, PDF_INK, sheet.title, 2);
  pen.write('text', 11, PDF_MUTED, sheet.subtitle, 10);
  for (const { heading, steps } of sheet.sections) {
    pen.rule();
    pen.write('bold', 14, PDF_INK, heading, 4);
    for (const step of steps) pen.step(step);
  }
  pen.rule();
  pen.write('bold', 12, PDF_INK, 'Mind', 4);
  for (const caution of sheet.cautions) pen.write('text', 10.5, PDF_INK, `· ${caution}`, 2);
  return finish();
}

/** Writes downwards and starts a new page where one is full. */
class SheetPen {
  private y = TOP;
  private readonly width: number;
  private readonly bottom: number;

  constructor(
    private readonly page: PdfPage,
    private readonly system: UnitSystem,
  ) {
    const { widthMm, heightMm } = PAPERS[system];
    this.width = widthMm * PT_PER_MM - 2 * LEFT;
    this.bottom = heightMm * PT_PER_MM - TOP;
  }

  /** A line before a heading, which never stands alone at the end of a page. */
  rule(): void {
    this.room(100);
    this.y += 6;
    this.page
      .moveTo(LEFT, this.y)
      .lineTo(LEFT + this.width, this.y)
      .lineWidth(0.6)
      .stroke('#b9b2a2');
    this.y += 8;
  }

  write(font: 'text' | 'bold', size: number, colour: string, words: string, after: number, indent = 0): void {
    this.page.font(font).fontSize(size);
    const width = this.width - indent;
    const height = this.page.heightOfString(words, { width });
    this.room(height);
    this.page.fillColor(colour).text(words, LEFT + indent, this.y, { width });
    this.y += height + after;
  }

  step({ words, reason, figures }: RunStep): void {
    this.room(figures.length > 0 ? 76 : 34);
    this.page
      .rect(LEFT, this.y + 1, BOX, BOX)
      .lineWidth(1)
      .stroke(PDF_INK);
    this.write('text', 12.5, PDF_INK, words, 1, BOX + 10);
    if (reason) this.write('text', 9, PDF_MUTED, reason, 3, BOX + 10);
    if (figures.length > 0) this.figures(figures);
    this.y += 4;
  }

  private figures(figures: RunStep['figures']): void {
    let x = LEFT + BOX + 10;
    for (const [figure, unit] of figures) {
      this.page.font('figure').fontSize(24).fillColor(PDF_INK).text(figure, x, this.y, { lineBreak: false });
      const wide = this.page.widthOfString(figure);
      this.page.font('text').fontSize(9).fillColor(PDF_MUTED);
      this.page.text(unit, x, this.y + 28, { lineBreak: false });
      x += Math.max(wide, this.page.widthOfString(unit)) + 18;
    }
    this.y += 42;
  }

  private room(height: number): void {
    if (this.y + height <= this.bottom) return;
    this.page.addPage({ size: PAPERS[this.system].size, margin: 0 });
    this.y = TOP;
  }
}
