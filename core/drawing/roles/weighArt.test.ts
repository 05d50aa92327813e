import { describe, expect, it } from 'vitest';
import { guessRoles, rolesOf, type RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { groupKey, roleOf } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';

const film: RoleFacts = { canKiss: true, isRollFed: false, canCrease: false };
const rolesIn = (inside: string, facts = film) =>
  Object.values(
    rolesOf(
      guessRoles(readSvg(`<svg width="60mm" height="60mm" viewBox="0 0 60 60">${inside}</svg>`), facts),
    ),
  );
const face = '<circle cx="30" cy="30" r="20" fill="#fcd34d"/>';
const pen = 'fill="none" stroke="#222" stroke-width="1.5" stroke-linecap="round" stroke-linejoin="round"';

describe('strokes of a picture are art', () => {
  it.each([
    [
      'the drawn edge of an area, eyes filled in its colour',
      `${face}<circle cx="30" cy="30" r="20" ${pen}/><g fill="#222"><circle cx="24" cy="26" r="2"/><circle cx="36" cy="26" r="2"/></g>`,
    ],
    ['lines that end within areas', `${face}<path ${pen} d="M22 36Q30 44 38 36"/>`],
    [
      'areas with a drawn edge of their own',
      '<g stroke="#111" stroke-width=".3"><circle cx="20" cy="30" r="9" fill="#c33"/><circle cx="40" cy="30" r="9" fill="#36c"/></g>',
    ],
    [
      'strokes that a gradient paints',
      '<linearGradient id="g"/><circle cx="30" cy="30" r="20" fill="url(#g)"/><path d="M20 30H40" fill="none" stroke="url(#g)" stroke-width=".2"/>',
    ],
    ['wide, round, open strokes alone', `<path ${pen} d="M5 30H55M10 20V40M20 20V40M30 20V40"/>`],
  ])('%s', (_, inside) => {
    expect(new Set(rolesIn(inside))).toEqual(new Set(['art']));
  });
});

describe('lines to cut along are not', () => {
  it.each([
    [
      'a thin line around art',
      `${face}<circle cx="30" cy="30" r="23" fill="none" stroke="#222" stroke-width=".25"/>`,
    ],
    ['a wide one that stands off', `${face}<circle cx="30" cy="30" r="26" ${pen}/>`],
    [
      'one in a colour that no art has, on the edge of the art',
      `${face}<circle cx="30" cy="30" r="20" fill="none" stroke="#f0f" stroke-width="1"/>`,
    ],
    [
      'one around each of several',
      '<circle cx="15" cy="30" r="9" fill="#c33"/><circle cx="45" cy="30" r="9" fill="#36c"/><g fill="none" stroke="#000" stroke-width=".3"><circle cx="15" cy="30" r="11"/><circle cx="45" cy="30" r="11"/></g>',
    ],
    ['a shape black only for want of being told otherwise', '<path stroke="#000" d="M10 10H50V50Z"/>'],
  ])('%s', (_, inside) => {
    expect(rolesIn(inside)).toContain('kiss');
  });
});

it('a gradient is a group of its own, and goes by what black was for in jobs from before', () => {
  const [served, black] = readSvg(
    '<svg width="9mm" height="9mm" viewBox="0 0 9 9"><linearGradient id="g"/><path fill="url(#g)" d="M0 0H9V9Z"/><path d="M0 0H9V9Z"/></svg>',
  ).contours;
  expect([groupKey(served!), groupKey(black!)]).toEqual(['|gradient', '|#000000']);
  const before = { roles: { '|#000000': 'art' }, lineRoles: {} } as const;
  expect(roleOf(served!, before)).toBe('art');
  expect(roleOf(served!, { ...before, roles: { ...before.roles, '|gradient': 'kiss' } })).toBe('kiss');
});
