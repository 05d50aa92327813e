import { describe, expect, it } from 'vitest';
import { applyEdits } from '#core/checks/applyEdits.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour } from '#core/geometry/box.ts';
import { rolesToTrace, startJob } from '#core/job/startJob.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';

const svg = (inside: string) =>
  readSvg(`<svg width="60mm" height="60mm" viewBox="0 0 60 60">${inside}</svg>`);
const film = { canKiss: true, isRollFed: false, canCrease: false };
const card = { canKiss: false, isRollFed: false, canCrease: true };
const bed = { bedWidthMm: 330, bedLengthMm: 480, marginMm: 6 };
const start = (drawing: ReturnType<typeof svg>, facts = film, covered?: string) =>
  startJob({ name: 'Gull', format: 'svg', source: '' }, drawing, bed, facts, [], covered);

describe('a drawing that is all art', () => {
  const two = svg(
    '<circle cx="20" cy="30" r="10" fill="#c33"/><circle cx="32" cy="30" r="10" fill="#36c" stroke="#222" stroke-width="2"/>',
  );

  it('is cut around once, at the edge of what is painted: the whole, not each colour', () => {
    const job = start(two);
    const { contours } = applyEdits(two, job.edits);
    const cut = contours.filter((line) => roleOf(line, job) !== 'art');
    expect(cut.length).toBe(1);
    expect(roleOf(cut[0]!, job)).toBe('kiss');
    const box = boundContour(cut[0]!.contour);
    expect([box.minX, box.maxX].map((mm) => Math.round(mm * 10) / 10)).toEqual([10, 43]);
    expect(job.areRolesGuessed).toBe(true);
  });

  it('is cut through on a single layer, and keeps its tabs on a roll', () => {
    const roleIn = (facts: typeof film) => {
      const job = start(two, facts);
      return roleOf(applyEdits(two, job.edits).contours.at(-1)!, job);
    };
    expect(roleIn(card)).toBe('through');
    expect(roleIn({ ...card, isRollFed: true })).toBe('perforated');
  });

  it('is cut along what was traced where lines do not tell what is painted', () => {
    const faded = svg(
      '<circle cx="20" cy="30" r="10" fill="#c33" opacity=".5"/><circle cx="32" cy="30" r="10" fill="#36c"/>',
    );
    expect(rolesToTrace({ drawing: faded, facts: film, rules: [] })).toEqual({
      '|#cc3333': 'art',
      '|#3366cc': 'art',
    });
    expect(rolesToTrace({ drawing: two, facts: film, rules: [] })).toBeNull();
    const job = start(faded, film, 'M10 20L42 20L42 40L10 40L10 20Z M15 25L15 35L20 35L20 25Z');
    const [outline, ...rest] = applyEdits(faded, job.edits).contours.slice(2);
    expect(rest).toEqual([]);
    expect(boundContour(outline!.contour)).toEqual({ minX: 10, minY: 20, maxX: 42, maxY: 40 });
  });

  it('keeps its outline around it when it is made larger', () => {
    const job = start(two, film, 'M10 20L42 20L42 40L10 40L10 20Z');
    const larger = applyEdits(two, [{ kind: 'scale', factor: 2 }, ...job.edits]);
    expect(boundContour(larger.contours.at(-1)!.contour)).toEqual({ minX: 20, minY: 40, maxX: 84, maxY: 80 });
  });
});

it('a drawing with a line to cut is not cut around: whoever drew the line knows where', () => {
  const drawn = svg(
    '<circle cx="20" cy="30" r="10" fill="#c33"/><circle cx="20" cy="30" r="14" fill="none" stroke="#000"/>',
  );
  expect(start(drawn).edits).toEqual([]);
});
