import {
  keptPictureSize,
  listKeptPictures,
  replaceKeptPictures,
  sizeOfPicture,
} from '#core/drawing/keptPicture.ts';
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
import { picturePath } from '#web/schemas/picturePath.ts';
import { base64Of } from '#web/islands/shared/base64Of.ts';
import { blobOf } from '#web/islands/jobs/picture/blobOf.ts';
import type { Drawing, DrawnImage } from '#core/drawing/drawing.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { RoleRule } from '#core/drawing/roles/roleRules.ts';
import type { JobDrawing, JobHead } from '#core/job/job.ts';
import { describeLayout, type ShownLayout } from '#core/job/describeLayout.ts';
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

/** By the number of the drawing. */
const sources = new Map<number, string>();
/** By the text of the file. */
const opened = new Map<string, Drawing>();
const arts = new Map<string, ArtSource>();

self.onmessage = ({ data }: MessageEvent<DesignOrder | DesignFile | BorderQuestion>) => {
  if (data.kind === 'file') return void sources.set(data.number, data.source);
  if (data.kind === 'border') return answerBorder(data);
  void answerDesign(data);
};

const sourceOf = (number: number) => sources.get(number) ?? '';

async function answerDesign(order: DesignOrder): Promise<void> {
  const { id, machine, facts, rules, checks } = order;
  const post = (report: DesignReport) => self.postMessage(report);
  const tell = (words: string) => (share: number) => post({ kind: 'progress', id, words, share });
  const open = ({ format, source }: Artwork): Drawing => {
    const known = opened.get(source) ?? readDrawing(format, source, tell('Reading the drawing'));
    opened.set(source, known);
    return known;
  };
  const { moreDrawings = [], ...first } = order.design;
  const design: JobDesign = {
    ...first,
    source: sourceOf(0),
    moreDrawings: moreDrawings.map((one) => ({ ...one, source: sourceOf(one.number) })),
  };
  try {
    const laid = layOutJob(design, machine, open);
    for (const number of [0, ...moreDrawings.map((one) => one.number)]) await openPainted(sourceOf(number));
    const shown = {
      drawing: order.drawing,
      artOf: (number: number) => arts.get(sourceOf(number)) ?? null,
    };
    post({ kind: 'layout', id, layout: withAddresses(describeLayout(design, laid, facts, rules, shown)) });
    const looked = laid.parts.find(({ number }) => number === order.drawing) ?? itemAt(laid.parts, 0);
    const troubles = findTroubles(looked.drawing, looked.given, checks, tell('Checking the lines'));
    post({ kind: 'troubles', id, troubles });
  } catch (error) {
    post({ kind: 'failed', id, message: error instanceof Error ? error.message : String(error) });
  }
}

/** Opens a file that is shown as it was painted. A picture that shows an SVG fetches nothing: its own go into it. */
async function openPainted(source: string): Promise<void> {
  if (arts.has(source) || !opened.get(source)?.isMoreThanLines) return;
  const kept = new Map<string, string>();
  for (const address of listKeptPictures(source)) kept.set(address, await fetchPicture(picturePath(address)));
  arts.set(source, openArt(replaceKeptPictures(source, (address) => kept.get(address) ?? address)));
}

async function fetchPicture(address: string): Promise<string> {
  const reply = await fetch(address);
  if (!reply.ok) throw new Error('A picture could not be fetched. Load the page again.');
  const blob = await reply.blob();
  return `data:${blob.type};base64,${await base64Of(new File([blob], 'picture'))}`;
}

function answerBorder({ id, file, border }: BorderQuestion): void {
  const drawing = opened.get(sourceOf(file.number));
  if (!drawing) return;
  const covered = encloseLines(bordered(applyEdits(drawing, editsBefore(file.edits)), file));
  const { rings, ...measured } = measureBorder(covered, border);
  const answer: BorderAnswer = { ...measured, data: writeRingsData(rings) };
  self.postMessage({ kind: 'border', id, border: answer } satisfies DesignReport);
}

/** Pictures by their addresses here: their data would be copied with every answer, once for every copy on the sheet. */
const addresses = new Map<string, string>();
/** A larger picture is shown with all its pixels, mm. */
const SMALL_UNTIL_MM = 65;

function withAddresses(layout: ShownLayout): ShownLayout {
  const { drawing, sheets } = layout;
  const whole = (images: readonly DrawnImage[]) =>
    images.map((image) => ({ ...image, data: addressOf(image.data, false) }));
  const fine = (images: readonly DrawnImage[]) =>
    images.map((image) => ({ ...image, data: addressOf(image.data, longestMm(image) < SMALL_UNTIL_MM) }));
  return {
    ...layout,
    drawing: {
      ...drawing,
      images: whole(drawing.images),
      art: drawing.art && whole(drawing.art),
      widthsPx: drawing.images.map(({ data }) => sizeOfPicture(data)?.widthPx ?? null),
    },
    sheets: sheets.map((one) => ({ ...one, images: fine(one.images), art: one.art && fine(one.art) })),
  };
}

function longestMm({ toMm: [a, b, c, d] }: DrawnImage): number {
  return Math.max(Math.hypot(a, b), Math.hypot(c, d));
}

function addressOf(data: string, isSmall: boolean): string {
  if (keptPictureSize(data)) return picturePath(data, isSmall);
  const known = addresses.get(data) ?? URL.createObjectURL(blobOf(data));
  addresses.set(data, known);
  return known;
}
