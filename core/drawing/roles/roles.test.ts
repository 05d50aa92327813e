import { startOf } from '#core/geometry/contour.ts';
import { describe, expect, it } from 'vitest';
import { guessRoles } from '#core/drawing/roles/guessRoles.ts';
import { groupKey, groupLines, roleOf } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { findRule, ruleFromGroup } from '#core/drawing/roles/roleRules.ts';
import { writeDxf } from '#core/drawing/dxf/writeDxf.ts';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { writeSvg } from '#core/drawing/svg/writeSvg.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

const svg = (inside: string) =>
  readSvg(
    `<svg width="200mm" height="100mm" viewBox="0 0 200 100" fill="none" stroke="#000">${inside}</svg>`,
  );
const onRoll = { canKiss: true, isRollFed: true, canCrease: false };
const guess = (inside: string, facts = onRoll) => Object.values(guessRoles(svg(inside), facts));

describe('guesses', () => {
  it('perforate what holds others on a roll, with the reason', () => {
    const [inner, outer] = guess(
      '<g stroke="#00f"><circle cx="30" cy="50" r="10"/><circle cx="80" cy="50" r="10"/></g><g stroke="#f00"><rect x="10" y="20" width="40" height="60"/><rect x="60" y="20" width="40" height="60"/></g>',
    );
    expect(inner).toMatchObject({ role: 'kiss', isSure: false });
    expect(outer).toMatchObject({ role: 'perforated', isSure: false });
    expect(outer!.reason).toMatch(/probably what frees the piece/);
  });

  it.each([
    ['Fold lines', 'score', /cannot crease/],
    ['kiss', 'kiss', /named "kiss"/],
    ['Perf', 'perforated', /named "Perf"/],
    ['slits', 'slit', /named "slits"/],
    ['guides', 'ignore', /named "guides"/],
    ['die', 'perforated', /tabs keep it in the sheet/],
  ])('go by the layer %s: %s', (layer, role, reason) => {
    const [one] = guess(`<g id="${layer}"><path d="M1 1H90"/></g>`);
    expect(one!.role).toBe(role);
    expect(one!.reason).toMatch(reason);
  });

  it('tell dashed lines from whole ones', () => {
    const drawing = svg('<path d="M1 1H90"/><path stroke-dasharray="4 2" d="M1 5H90"/>');
    expect(groupLines(drawing).map(({ dash }) => dash)).toEqual([null, '4 2']);
    expect(groupKey(drawing.contours[1]!)).toBe('|#000000|4 2');
  });

  it('give way to the workshop’s own rules, the one that asks more first', () => {
    const rules = [
      { layer: 'cut', colour: null, isDashed: null, role: 'through' as const },
      { layer: 'cut', colour: '#000000', isDashed: true, role: 'crease' as const },
    ];
    const drawing = svg('<g id="Cut 1"><path d="M1 1H90"/><path stroke-dasharray="4" d="M1 5H90"/></g>');
    const guesses = Object.values(guessRoles(drawing, onRoll, rules));
    expect(guesses.map(({ role, isSure }) => [role, isSure])).toEqual([
      ['through', true],
      ['crease', true],
    ]);
    const [plain] = groupLines(drawing);
    expect(findRule([ruleFromGroup(plain!, 'kiss')], plain!)?.role).toBe('kiss');
    expect(findRule([{ layer: null, colour: null, isDashed: null, role: 'art' }], plain!)).toBeNull();
  });

  it('lose to a role given to a single line', () => {
    const [line] = svg('<path d="M1 1H90"/>').contours;
    expect(roleOf(line!, { roles: { '|#000000': 'kiss' }, lineRoles: {} })).toBe('kiss');
    expect(roleOf(line!, { roles: { '|#000000': 'kiss' }, lineRoles: { 0: 'slit' } })).toBe('slit');
    expect(roleOf(line!, { roles: {}, lineRoles: {} })).toBeNull();
  });
});

describe('splitPieces', () => {
  const drawing = svg(
    '<g stroke="#f00"><rect x="10" y="10" width="40" height="40"/><rect x="60" y="10" width="40" height="40"/></g><g stroke="#00f"><circle cx="30" cy="30" r="8"/><circle cx="80" cy="30" r="8"/></g><g stroke="none" fill="#0a0"><circle cx="30" cy="30" r="25"/></g><path stroke="#888" d="M120 10V60"/>',
  );
  const roles = { '|#ff0000': 'through', '|#0000ff': 'kiss', '|#00aa00': 'art', '|#888888': 'slit' } as const;

  it('makes a piece of every outermost outline with what is in it and the art over it', () => {
    const pieces = splitPieces(drawing, { roles, lineRoles: {} }, false);
    expect(pieces.map(({ lineIds }) => lineIds)).toEqual([[0, 2, 4], [1, 3], [5]]);
    expect(pieces[0]!.box).toEqual({ minX: 10, minY: 10, maxX: 50, maxY: 50 });
  });

  it('makes one of everything when it is to stay as drawn, and leaves out what is to be ignored', () => {
    const [whole, ...rest] = splitPieces(
      drawing,
      { roles: { ...roles, '|#888888': 'ignore' }, lineRoles: {} },
      true,
    );
    expect(rest).toEqual([]);
    expect(whole!.lineIds).toEqual([0, 1, 2, 3, 4]);
    expect(whole!.box.maxX).toBe(100);
    const none = {
      roles: Object.fromEntries(Object.keys(roles).map((key) => [key, 'ignore' as const])),
      lineRoles: {},
    };
    expect(splitPieces(drawing, none, true)).toEqual([]);
  });
});

describe('layered files', () => {
  const square = [
    { x: 10, y: 20 },
    { x: 40, y: 20 },
    { x: 40, y: 50 },
    { x: 10, y: 50 },
    { x: 10, y: 20 },
  ];
  const lines = [
    { role: 'kiss' as const, points: square },
    { role: 'crease' as const, points: square.slice(0, 2) },
  ];

  it('come back from DXF with layers, lengths and closed outlines (1e-3 mm)', () => {
    const { contours } = readDxf(writeDxf(lines, 100));
    expect(contours.map(({ layer, contour }) => [layer, contour.isClosed])).toEqual([
      ['KISS', true],
      ['CREASE', false],
    ]);
    expect(measureContour(contours[0]!.contour)).toBeCloseTo(120, 3);
  });

  it('come back from SVG at their place, the crease first', () => {
    const read = readSvg(writeSvg(lines, { widthMm: 100, heightMm: 80 }));
    expect(read.contours.map(({ layer }) => layer)).toEqual(['crease', 'kiss']);
    expect(startOf(read.contours[1]!.contour)).toEqual({ x: 10, y: 20 });
    expect([read.widthMm, read.heightMm]).toEqual([100, 80]);
  });
});
