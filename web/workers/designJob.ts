import { openArt, type ArtSource } from '#core/artwork/printed/artSource.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import { applyEdits } from '#core/checks/applyEdits.ts';
import type { BorderOrder } from '#core/drawing/border/border.ts';
import { measureBorder, type MeasuredBorder } from '#core/drawing/border/measureBorder.ts';
import { writeRingsData } from '#core/drawing/writePathData.ts';
import { encloseLines } from '#core/drawing/coverLines.ts';
import { bordered, editsBefore } from '#core/job/jobBorder.ts';
import { itemAt } from '#core/collections/itemAt.ts';
import { pictureSize } from '#core/artwork/pictureSize.ts';
import { blobOf, bytesOf } from '#web/islands/jobs/picture/blobOf.ts';
import type { Drawing, DrawnImage, ReadProgress } from '#core/drawing/drawing.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import type { JobDrawing, JobHead } from '#core/job/job.ts';
import { describeLayout, type ShownDrawing, type ShownLayout } from '#core/job/describeLayout.ts';
import type { Artwork } from '#core/job/joinDrawings.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import type { Machine } from '#core/station/machine.ts';

/** A file of the job, told once: it can be many megabytes. */
export interface DesignFile {
  readonly kind: 'file';
  readonly number: number;
  readonly source: string;
}

/** What the browser's thread is asked about a job, whose files it was told. */
export interface DesignOrder {
  readonly kind: 'design';
  readonly id: number;
  readonly design: Omit<JobDesign, 'source' | 'moreDrawings'> & Pick<JobHead, 'moreDrawings'>;
  /** The number of the drawing that is looked at. */
  readonly drawing: number;
  readonly machine: Pick<Machine, 'marks' | 'printAndCut'>;
  readonly facts: RoleFacts;
  readonly rules: readonly RoleRule[];
  readonly checks: CheckFacts;
}

/** What a border would come to. */
export interface BorderQuestion {
  readonly kind: 'border';
  readonly id: number;
  readonly file: Omit<JobDrawing, 'source'>;
  readonly border: BorderOrder;
}

export type DesignReport =
  | { readonly kind: 'border'; readonly id: number; readonly border: BorderAnswer }
  | { readonly kind: 'progress'; readonly id: number; readonly words: string; readonly share: number }
  | { readonly kind: 'layout'; readonly id: number; readonly layout: ShownLayout }
  | { readonly kind: 'troubles'; readonly id: number; readonly troubles: readonly Trouble[] }
  | { readonly kind: 'failed'; readonly id: number; readonly message: string };

/** What a border comes to, and where it would lie. */
export interface BorderAnswer extends Omit<MeasuredBorder, 'rings'> {
  readonly data: string;
}

interface Opened {
  readonly drawing: Drawing;
  readonly art: ArtSource | null;
}
/** By the number of the drawing. */
const sources = new Map<number, string>();
/** By the text of the file. */
const opened = new Map<string, Opened>();

self.onmessage = ({ data }: MessageEvent<DesignOrder | DesignFile | BorderQuestion>) => {
  if (data.kind === 'file') return void sources.set(data.number, data.source);
  if (data.kind === 'border') return answerBorder(data);
  const { id, machine, facts, rules, checks } = data;
  const post = (report: DesignReport) => self.postMessage(report);
  const tell = (words: string) => (share: number) => post({ kind: 'progress', id, words, share });
  const sourceOf = (number: number) => sources.get(number) ?? '';
  const open = ({ format, source }: Artwork): Opened => {
    const known = opened.get(source) ?? openFile(format, source, tell('Reading the drawing'));
    opened.set(source, known);
    return known;
  };
  const { moreDrawings = [], ...first } = data.design;
  const design: JobDesign = {
    ...first,
    source: sourceOf(0),
    moreDrawings: moreDrawings.map((one) => ({ ...one, source: sourceOf(one.number) })),
  };
  const artOf = (number: number) => opened.get(sourceOf(number))?.art ?? null;
  try {
    const laid = layOutJob(design, machine, (file) => open(file).drawing);
    const shown = { drawing: data.drawing, artOf };
    post({ kind: 'layout', id, layout: withAddresses(describeLayout(design, laid, facts, rules, shown)) });
    const looked = laid.parts.find(({ number }) => number === data.drawing) ?? itemAt(laid.parts, 0);
    const troubles = findTroubles(looked.drawing, looked.given, checks, tell('Checking the lines'));
    post({ kind: 'troubles', id, troubles });
  } catch (error) {
    post({ kind: 'failed', id, message: error instanceof Error ? error.message : String(error) });
  }
};

function answerBorder({ id, file, border }: BorderQuestion): void {
  const drawing = opened.get(sources.get(file.number) ?? '')?.drawing;
  if (!drawing) return;
  const covered = encloseLines(bordered(applyEdits(drawing, editsBefore(file.edits)), file));
  const { rings, ...measured } = measureBorder(covered, border);
  const answer: BorderAnswer = { ...measured, data: writeRingsData(rings) };
  self.postMessage({ kind: 'border', id, border: answer } satisfies DesignReport);
}

function openFile(format: Artwork['format'], source: string, onProgress: ReadProgress): Opened {
  const drawing = readDrawing(format, source, onProgress);
  return { drawing, art: drawing.isMoreThanLines ? openArt(source) : null };
}

/** Pictures by their addresses here: their data would be copied with every answer, once for every copy on the sheet. */
const addresses = new Map<string, string>();

function withAddresses(layout: ShownLayout): ShownLayout {
  const short = (images: readonly DrawnImage[]) =>
    images.map((image) => ({ ...image, data: addressOf(image.data) }));
  const shorten = <One extends Pick<ShownDrawing, 'images' | 'art'>>(one: One): One => ({
    ...one,
    images: short(one.images),
    art: one.art && short(one.art),
  });
  const { drawing, sheets } = layout;
  const widthsPx = drawing.images.map(({ data }) => pictureSize(bytesOf(data, HEAD_BYTES))?.widthPx ?? null);
  return { ...layout, drawing: { ...shorten(drawing), widthsPx }, sheets: sheets.map(shorten) };
}

/** What a camera adds stands before the size of a picture, but no more than this. */
const HEAD_BYTES = 300_000;

function addressOf(data: string): string {
  const known = addresses.get(data) ?? URL.createObjectURL(blobOf(data));
  addresses.set(data, known);
  return known;
}
