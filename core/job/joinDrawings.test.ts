import { describe, expect, it } from 'vitest';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour, overlap } from '#core/geometry/box.ts';
import { arrangeJob, chooseSheetFor } from '#core/job/arrangeJob.ts';
import { withoutDrawing } from '#core/job/drawingsOf.ts';
import { fitLayout } from '#core/job/fitLayout.ts';
import type { JobDrawing } from '#core/job/job.ts';
import { borderOf, setBorder, startBorder, withoutBorder } from '#core/job/jobBorder.ts';
import { joinDrawings, partOf } from '#core/job/joinDrawings.ts';
import { layOutJob, type JobDesign } from '#core/job/layOutJob.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

const bench = { marks: { scheme: 'none', lengthMm: 5, thicknessMm: 1, insetMm: 10 } } as const;
const disc = (radius: number) =>
  `<svg width="${2 * radius}mm" height="${2 * radius}mm" viewBox="0 0 ${2 * radius} ${2 * radius}"><circle cx="${radius}" cy="${radius}" r="${radius}" fill="none" stroke="#000"/></svg>`;
const further = (number: number, source: string, role: 'kiss' | 'through'): JobDrawing => ({
  number,
  name: `drawing ${number}`,
  format: 'svg',
  source,
  roles: { '|#000000': role },
  lineRoles: {},
  areRolesGuessed: false,
  edits: [],
});
const layout = { ...PLAIN_LAYOUT, arrangement: 'rows' as const, copies: 2, placements: [] };
const design = (change: Partial<JobDesign> = {}): JobDesign => ({
  ...sampleDesign(disc(10), { '|#000000': 'kiss' }, { xMm: 6, yMm: 6 }),
  moreDrawings: [further(1, disc(15), 'through'), further(4, disc(5), 'kiss')],
  layout,
  ...change,
});
const arranged = (job: JobDesign): JobDesign => ({ ...job, layout: arrangeJob(job, bench) });

describe('many drawings in one job', () => {
  it('keep roles of their own, though their lines look alike, and ids of their own', () => {
    const { drawing, given, pieces, parts } = joinDrawings(design());
    expect(drawing.contours.map((line) => roleOf(line, given))).toEqual(['kiss', 'through', 'kiss']);
    expect(new Set(drawing.contours.map(({ id }) => id)).size).toBe(3);
    expect(pieces.map((_, piece) => partOf(parts, piece).number)).toEqual([0, 1, 4]);
    const boxes = drawing.contours.map(({ contour }) => boundContour(contour));
    expect(boxes.some((box, at) => boxes.some((other, index) => index > at && overlap(box, other)))).toBe(
      false,
    );
  });

  it('are laid out with copies of their own, each at its size', () => {
    const job = arranged(
      design({ layout: { ...layout, byDrawing: { 1: { copies: 3 }, 4: { copies: 0 } } } }),
    );
    const [sheet] = layOutJob(job, bench).sheets;
    const widths = sheet!.lines.map(({ contour }) => {
      const { minX, maxX } = boundContour(contour);
      return Math.round(maxX - minX);
    });
    expect(widths.toSorted((a, b) => b - a)).toEqual([30, 30, 30, 20, 20]);
  });

  it('stay as they were, one alone: the drawing itself with its own ids', () => {
    const alone = design({ moreDrawings: [] });
    const read = readSvg(alone.source);
    expect(joinDrawings(alone, () => read).drawing).toBe(read);
  });

  it('follow when another goes, or comes back in another place', () => {
    const job = arranged(design());
    const gone = withoutDrawing(job, 1).next;
    const fitted = fitLayout((file) => readSvg(file.source), job, { ...gone, layout: job.layout });
    expect(fitted.placements.map(({ piece }) => piece)).toEqual([0, 0, 1, 1]);
    expect(fitted.placements).toMatchObject(
      job.layout.placements.filter(({ piece }) => piece !== 1).map(({ xMm, yMm }) => ({ xMm, yMm })),
    );
    const { next, renumbered } = withoutDrawing(job, 0);
    expect(renumbered).toEqual({ from: 1, to: 0 });
    const formerOf = (number: number) => (number === 0 ? 1 : number);
    const promoted = fitLayout((file) => readSvg(file.source), job, next, formerOf);
    const { lines } = layOutJob({ ...next, layout: promoted }, bench).sheets[0]!;
    expect(
      lines.map(({ contour }) => Math.round(boundContour(contour).maxX - boundContour(contour).minX)),
    ).toEqual([30, 30, 10, 10]);
    expect(() => withoutDrawing(design({ moreDrawings: [] }), 0)).toThrow('at least one');
    expect(() => withoutDrawing(job, 2)).toThrow('no drawing 2');
  });

  it('lie on cards that are cut out, and leave them where they lie when the cards go', () => {
    const carrier = {
      widthMm: 90,
      heightMm: 64,
      radiusMm: 4,
      marginMm: 5,
      hole: null,
      role: 'through',
      count: 1,
    } as const;
    const job = arranged(design({ layout: { ...layout, carrier } }));
    const laid = layOutJob(job, bench);
    const cards = job.layout.placements.filter(({ piece }) => partOf(laid.parts, piece).number === null);
    expect(cards.length).toBe(1);
    const roles = laid.sheets[0]!.lines.map((line) => roleOf(line, laid.given));
    expect(roles.filter((role) => role === 'through').length).toBe(3);
    expect(laid.sheets[0]!.isInside).toBe(true);
    const { carrier: _gone, ...plain } = job.layout;
    const left = fitLayout((file) => readSvg(file.source), job, { ...job, layout: plain });
    expect(left.placements.length).toBe(job.layout.placements.length - 1);
  });

  it('begin on the smallest sheet that takes them all', () => {
    const bed = { ...bench, bedWidthMm: 330, bedLengthMm: 480, marginMm: 5 };
    const small = chooseSheetFor(design(), bed);
    const many = chooseSheetFor(design({ layout: { ...layout, copies: 30 } }), bed);
    expect(small.widthMm * small.heightMm).toBeLessThan(many.widthMm * many.heightMm);
  });
});

describe('the border of a drawing', () => {
  const drawing = readSvg(disc(10));
  const plain = { roles: { '|#000000': 'kiss' }, lineRoles: {}, edits: [] } as const;
  const border = { byMm: 2, closesMm: 0, backing: 'outline', colour: '#e3b23c' } as const;

  it('stands in for its outline, is cut as that was, and has its colour printed behind', () => {
    const started = startBorder(plain, drawing, border);
    const job = design({ ...started, moreDrawings: [] });
    const { contours } = joinDrawings(job).drawing;
    expect(contours.map((line) => roleOf(line, job))).toEqual(['kiss', 'art']);
    const { minX, maxX } = boundContour(contours[0]!.contour);
    expect(maxX - minX).toBeCloseTo(24, 1);
    expect(contours[1]).toMatchObject({ isBehind: true, fillColour: '#e3b23c' });
  });

  it('changes in its place, and goes without a trace', () => {
    const { edits, roles } = startBorder(plain, drawing, border);
    const wider = setBorder({ ...plain, edits, roles }, null, { ...border, byMm: 3, colour: null });
    expect(borderOf(wider.edits)).toEqual({ ...border, byMm: 3, colour: null });
    expect(wider.edits.length).toBe(1);
    expect(withoutBorder(wider.edits)).toEqual([]);
    expect(borderOf([])).toBeNull();
  });

  it('goes around no lines that are cut in two ways', () => {
    const two = readSvg(
      '<svg viewBox="0 0 9 9" fill="none"><path stroke="#f00" d="M0 0H9V9Z"/><path stroke="#00f" d="M1 1H5V5Z"/></svg>',
    );
    const given = { roles: { '|#ff0000': 'kiss', '|#0000ff': 'through' }, lineRoles: {}, edits: [] } as const;
    expect(startBorder(given, two, border)).toBe(given);
  });
});
