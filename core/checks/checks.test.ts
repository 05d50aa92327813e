import { describe, expect, it } from 'vitest';
import { applyEdits } from '#core/checks/applyEdits.ts';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import { findTroubles } from '#core/checks/findTroubles.ts';
import type { CheckFacts } from '#core/checks/trouble.ts';
import { groupLines, type Role } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundContour } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import { OPERATIONS } from '#core/stack/operation.ts';

const draw = (inside: string) =>
  readSvg(
    `<svg width="100mm" height="100mm" viewBox="0 0 100 100" fill="none" stroke="#000">${inside}</svg>`,
  );
const facts: CheckFacts = {
  family: 'printableVinyl',
  isLayered: true,
  machineKind: 'matFed',
  operations: OPERATIONS,
  offsetMm: 0.25,
  spacingMm: 2,
};
const check = (inside: string, role: Role = 'kiss', change: Partial<CheckFacts> = {}) => {
  const drawing = draw(inside);
  const roles = Object.fromEntries(groupLines(drawing).map(({ key }) => [key, role]));
  return findTroubles(drawing, { roles, lineRoles: {} }, { ...facts, ...change });
};
const mend = (inside: string, ...edits: DrawingEdit[]) => applyEdits(draw(inside), edits).contours;
const areaOf = (contour: Parameters<typeof flattenContour>[0]) =>
  Math.abs(signedAreaMm2(flattenContour(contour)));

describe('findTroubles', () => {
  it('finds nothing on a clean drawing', () => {
    expect(
      check('<circle cx="30" cy="30" r="20"/><rect x="60" y="10" width="30" height="30" rx="4"/>'),
    ).toEqual([]);
  });

  it.each([
    ['openOutline', '<path d="M10 10H40V40H10V11"/>', 'kiss', {}],
    [
      'duplicate',
      '<circle cx="30" cy="30" r="20"/><path d="M10 30a20 20 0 1 0 40 0a20 20 0 1 0 -40 0"/>',
      'kiss',
      {},
    ],
    [
      'crossing',
      '<rect x="10" y="10" width="30" height="30"/><rect x="30" y="30" width="30" height="30"/>',
      'kiss',
      {},
    ],
    ['crossing', '<path d="M10 10L40 40V10L10 40Z"/>', 'kiss', {}],
    [
      'tooFine',
      '<path d="M10 10H40V40H10Z M0 0M25.300 40V60H25.700V40"/><path d="M50 10H80V40H65.200V70H64.800V40H50Z"/>',
      'kiss',
      {},
    ],
    ['tightCorner', '<path d="M10 10L60 12L10 14Z"/>', 'kiss', {}],
    ['tinyPiece', '<circle cx="30" cy="30" r="1.500"/>', 'kiss', {}],
    [
      'island',
      '<rect x="5" y="5" width="90" height="90"/><circle cx="50" cy="50" r="20"/><circle cx="50" cy="50" r="8"/>',
      'through',
      { family: 'stencilSheet', isLayered: false },
    ],
    [
      'tooClose',
      '<rect x="10" y="10" width="30" height="30"/><rect x="40.400" y="10" width="30" height="30"/>',
      'through',
      {},
    ],
    ['throughOnRoll', '<rect x="10" y="10" width="30" height="30"/>', 'through', { machineKind: 'rollFed' }],
    ['impossibleRole', '<rect x="10" y="10" width="30" height="30"/>', 'kiss', { isLayered: false }],
    ['impossibleRole', '<path d="M10 10H40"/>', 'crease', { operations: ['kiss', 'through'] }],
  ] as const)('finds %s in %s', (kind, inside, role, change) => {
    const found = check(inside, role, change);
    expect(found.map((one) => one.kind)).toContain(kind);
    const one = found.find((trouble) => trouble.kind === kind)!;
    expect(one.what.length).toBeGreaterThan(8);
    expect(one.why.length).toBeGreaterThan(8);
    expect(one.lineIds.length).toBeGreaterThan(0);
  });

  it('says how far smoothing would move the line: a spike of 30 mm', () => {
    const spike = check('<path d="M50 10H80V40H65.200V70H64.800V40H50Z"/>').find(
      ({ kind }) => kind === 'tooFine',
    )!;
    expect(spike.preview).toMatch(/^M.*Z$/);
    expect(spike.fix!.words).toMatch(/Smooth by up to (29|30)\.\d mm/);
  });

  it('shows the place: where the ends gape, where lines cross', () => {
    expect(check('<path d="M10 10H40V40H10V11"/>')[0]).toMatchObject({
      at: { x: 10, y: 11 },
      fix: { words: 'Join' },
    });
    const [cross] = check('<path d="M10 20H60"/><path d="M30 5V50"/>');
    expect(cross!.at.x).toBeCloseTo(30, 6);
    expect(cross!.at.y).toBeCloseTo(20, 6);
  });

  it('finds a way that two lines share in part', () => {
    const found = check(
      '<rect x="10" y="10" width="30" height="30"/><rect x="40" y="20" width="30" height="40"/>',
    );
    expect(found.map(({ what }) => what)).toContain('lines 1 and 2 share 20.0 mm of their way');
  });

  it('lets slits and creases meet outlines, and a crease stay open', () => {
    const drawing = draw(
      '<g id="c"><path d="M10 10V60"/></g><g id="o"><rect x="5" y="10" width="40" height="50"/></g>',
    );
    const roles = { 'c|#000000': 'crease', 'o|#000000': 'through' } as const;
    expect(findTroubles(drawing, { roles, lineRoles: {} }, facts)).toEqual([]);
  });

  it('is no island what an even number of outlines surround: the sheet, a hole, a piece, its hole', () => {
    const rings = [45, 30, 20].map((r) => `<circle cx="50" cy="50" r="${r}"/>`).join('');
    const found = check(rings, 'through', { family: 'stencilSheet', isLayered: false });
    expect(found.filter(({ kind }) => kind === 'island')).toHaveLength(1);
  });

  it('tells how far it is', () => {
    const shares: number[] = [];
    const drawing = draw('<circle cx="30" cy="30" r="20"/>');
    findTroubles(drawing, { roles: { '|#000000': 'kiss' }, lineRoles: {} }, facts, (share) =>
      shares.push(share),
    );
    expect(shares.at(-1)).toBe(1);
  });
});

describe('mends', () => {
  it('join pieces of an outline, however they run, and close it', () => {
    const [line, ...rest] = mend(
      '<path d="M10 10H40"/><path d="M40.050 40V10.050"/><path d="M10 10V40H40"/>',
      {
        kind: 'join',
        withinMm: 0.2,
      },
    );
    expect(rest).toEqual([]);
    expect(line!.contour.isClosed).toBe(true);
    expect(measureContour(line!.contour)).toBeCloseTo(120, 0);
    expect(line!.id).toBe(0);
  });

  it('leave alone what is further apart, and what looks different', () => {
    expect(mend('<path d="M10 10H40"/><path d="M41 10V40"/>', { kind: 'join', withinMm: 0.5 })).toHaveLength(
      2,
    );
    expect(
      mend('<path d="M10 10H40"/><path stroke="red" d="M40 10V40"/>', { kind: 'join', withinMm: 0.5 }),
    ).toHaveLength(2);
  });

  it('keep one of doubled lines, and drop what is named', () => {
    const twice =
      '<circle cx="30" cy="30" r="20"/><circle cx="30" cy="30" r="20"/><circle cx="70" cy="30" r="9"/>';
    expect(mend(twice, { kind: 'dropDuplicates' }).map(({ id }) => id)).toEqual([0, 2]);
    expect(mend(twice, { kind: 'drop', lineIds: [1] }).map(({ id }) => id)).toEqual([0, 2]);
  });

  it('smooth away a spike and leave the rest within a hundredth of a mm', () => {
    const [line] = mend('<path d="M50 10H80V40H65.200V70H64.800V40H50Z"/>', {
      kind: 'smooth',
      lineIds: [0],
      widthMm: 1,
    });
    expect(boundContour(line!.contour).maxY).toBeCloseTo(40, 1);
    expect(areaOf(line!.contour)).toBeGreaterThan(898);
    expect(areaOf(line!.contour)).toBeLessThan(902);
  });

  it('round the corners of a square by a radius: area loses (4 - pi) r² (geometry of a quarter circle, 0.1 mm²)', () => {
    const [line] = mend('<rect x="10" y="10" width="40" height="40"/>', {
      kind: 'round',
      lineIds: [0],
      radiusMm: 3,
    });
    expect(areaOf(line!.contour)).toBeCloseTo(1600 - (4 - Math.PI) * 9, 0);
  });

  it('add a border by the formula of Steiner: A + P d + pi d², P + 2 pi d on a convex figure', () => {
    const [, border] = mend('<rect x="20" y="20" width="40" height="30"/>', {
      kind: 'offset',
      lineIds: [0],
      byMm: 5,
      isInked: false,
      layer: 'border',
    });
    expect(border!.layer).toBe('border');
    expect(Math.abs(areaOf(border!.contour) - (1200 + 140 * 5 + Math.PI * 25))).toBeLessThan(0.5);
    expect(measureContour(border!.contour)).toBeCloseTo(140 + 2 * Math.PI * 5, 0);
  });

  it('count the width of ink: a line of 4 mm, 3 mm around, is 10 mm wide', () => {
    const [, border] = mend('<path d="M20 50H80" stroke-width="4"/>', {
      kind: 'offset',
      lineIds: [0],
      byMm: 3,
      isInked: true,
      layer: 'border',
    });
    const { minY, maxY } = boundContour(border!.contour);
    expect(maxY - minY).toBeCloseTo(10, 1);
  });

  it('count it on every side of a closed line: 40 mm with ink 4 mm wide and 3 mm around is 50 mm, corners of 3 mm', () => {
    const edit = { kind: 'offset', lineIds: [0], byMm: 3, isInked: true, layer: 'border' } as const;
    const [, border] = mend('<rect x="20" y="20" width="40" height="40" stroke-width="4"/>', edit);
    expect(areaOf(border!.contour)).toBeCloseTo(2500 - (4 - Math.PI) * 9, 0);
  });

  it('runs along both sides of a stroke where its holes are kept: a ring of 40 mm, 4 mm wide, is 44 and 36 mm', () => {
    const edit = {
      kind: 'offset',
      lineIds: [0],
      byMm: 0,
      isInked: true,
      layer: 'strokes',
      keepsHoles: true,
    } as const;
    const added = mend('<rect x="20" y="20" width="40" height="40" stroke-width="4"/>', edit).slice(1);
    expect(added.map(({ contour }) => Math.round(areaOf(contour))).sort((a, b) => a - b)).toEqual([
      1296, 1936,
    ]);
  });

  it('add one inside, and fill holes', () => {
    const hole = '<rect x="10" y="10" width="60" height="60"/><circle cx="40" cy="40" r="9"/>';
    const inside = mend(hole, { kind: 'offset', lineIds: [0], byMm: -5, isInked: false, layer: 'rim' });
    expect(areaOf(inside.at(-1)!.contour)).toBeCloseTo(2500, 0);
    expect(mend(hole, { kind: 'fillHoles', lineIds: [0] }).map(({ id }) => id)).toEqual([0]);
  });

  it('hold an island by bars: the opening falls into two parts and nothing inside is loose', () => {
    const parts = mend('<circle cx="50" cy="50" r="20"/><circle cx="50" cy="50" r="8"/>', {
      kind: 'bridge',
      lineIds: [0],
      widthMm: 2,
    });
    expect(parts).toHaveLength(2);
    const area = parts.reduce((sum, { contour }) => sum + areaOf(contour), 0);
    expect(area).toBeLessThan(Math.PI * (400 - 64));
    expect(area).toBeGreaterThan(Math.PI * (400 - 64) - 2 * 2 * 12.5);
  });

  it('hold it just so when the island was drawn the other way round', () => {
    const opening = '<rect x="20" y="20" width="60" height="60"/>';
    const areaAfter = (island: string) =>
      mend(opening + island, { kind: 'bridge', lineIds: [0], widthMm: 2 }).reduce(
        (sum, { contour }) => sum + areaOf(contour),
        0,
      );
    // 3600 of the opening less 400 of the island, and less two bars of 2 x 20 mm.
    expect(areaAfter('<path d="M40 40H60V60H40Z"/>')).toBeCloseTo(3120, 0);
    expect(areaAfter('<path d="M40 40V60H60V40Z"/>')).toBeCloseTo(3120, 0);
  });

  it('do nothing where their lines are gone', () => {
    const edits: DrawingEdit[] = [
      { kind: 'smooth', lineIds: [9], widthMm: 1 },
      { kind: 'offset', lineIds: [9], byMm: 2, isInked: false, layer: 'x' },
      { kind: 'bridge', lineIds: [9], widthMm: 2 },
    ];
    expect(mend('<circle cx="50" cy="50" r="20"/>', ...edits)).toHaveLength(1);
  });
});
