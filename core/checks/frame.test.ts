import { describe, expect, it } from 'vitest';
import { applyEdits } from '#core/checks/applyEdits.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts } from '#core/checks/trouble.ts';
import { groupLines } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { OPERATIONS } from '#core/stack/operation.ts';

const facts: CheckFacts = {
  family: 'stencilSheet',
  isLayered: false,
  machineKind: 'matFed',
  operations: OPERATIONS,
  offsetMm: 0.25,
  spacingMm: 2,
};
const draw = (inside: string) =>
  readSvg(
    `<svg width="200mm" height="200mm" viewBox="0 0 200 200" fill="none" stroke="#000">${inside}</svg>`,
  );
const anchor = '<rect x="80" y="80" width="40" height="30"/><circle cx="100" cy="140" r="12"/>';
const frames = (drawing: ReturnType<typeof draw>, family: CheckFacts['family'] = 'stencilSheet') => {
  const roles = Object.fromEntries(groupLines(drawing).map(({ key }) => [key, 'through' as const]));
  return findTroubles(drawing, { roles, lineRoles: {} }, { ...facts, family }).filter(
    ({ kind }) => kind === 'noFrame',
  );
};

describe('the frame of a stencil (common practice, no source: T15)', () => {
  const [found] = frames(draw(anchor));

  it('is offered where there is none, or a narrow one; never on card', () => {
    expect(found).toMatchObject({ weight: 'careful', what: 'the stencil has no frame' });
    const narrow = `${anchor}<rect x="70" y="70" width="60" height="92"/>`;
    expect(frames(draw(narrow))[0]!.what).toBe('the frame is 10 mm wide');
    expect(frames(draw(`${anchor}<rect x="55" y="55" width="90" height="122"/>`))).toEqual([]);
    expect(frames(draw(anchor), 'cardstock')).toEqual([]);
  });

  it('is 25 mm all round with round corners, drawn and cut like the rest', () => {
    if (found?.fix?.kind !== 'edit') throw new Error('a frame is a mend of the drawing');
    const framed = applyEdits(draw(anchor), [found.fix.edit]);
    const frame = framed.contours.at(-1)!;
    const box = boundContour(frame.contour);
    expect(box.minX).toBeCloseTo(80 - 25, 1);
    expect(box.maxX).toBeCloseTo(120 + 25, 1);
    expect(box.maxY).toBeCloseTo(152 + 25, 1);
    // Nothing of it comes within a corner of its box: it is round.
    const near = flattenContour(frame.contour).some(({ x, y }) => x < box.minX + 2 && y < box.minY + 2);
    expect(near).toBe(false);
    expect(frame.strokeColour).toBe(framed.contours[0]!.strokeColour);
    expect(frames(framed)).toEqual([]);
  });
});
