import { describe, expect, it } from 'vitest';
import { guessRoles, lineRolesOf, rolesOf, type RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';
import { DIE_CUTS } from '#core/tests/dieCuts.ts';
import { roleOfLayer } from '#core/drawing/roles/layerWords.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { startJob } from '#core/job/startJob.ts';
import { machine } from '#core/tests/exampleScope.ts';

const draw = (inside: string, paint = 'fill="none" stroke="#000"') =>
  readSvg(`<svg width="100mm" height="100mm" viewBox="0 0 100 100" ${paint}>${inside}</svg>`);
const film: RoleFacts = { canKiss: true, isRollFed: false, canCrease: false };
const card: RoleFacts = { canKiss: false, isRollFed: false, canCrease: true };
const guess = (inside: string, facts: RoleFacts, paint?: string) => {
  const guesses = guessRoles(draw(inside, paint), facts);
  return { roles: Object.values(rolesOf(guesses)), lines: lineRolesOf(guesses), guesses };
};

describe('lines drawn alike', () => {
  const rings = '<circle cx="50" cy="50" r="40"/><circle cx="50" cy="50" r="20"/>';

  it('nested: the outermost frees, the inner one is kissed; with tabs on a roll', () => {
    expect(guess(rings, film)).toMatchObject({ roles: ['kiss'], lines: { 0: 'through' } });
    expect(guess(rings, { ...film, isRollFed: true }).lines).toEqual({ 0: 'perforated' });
    const [one] = Object.values(guess(rings, film).guesses);
    expect(one).toMatchObject({
      isSure: false,
      reason: expect.stringMatching(/outermost one frees the piece/),
    });
  });

  it('of one shape are a hole, not a piece in a piece: the letter O is kissed whole', () => {
    const letter = '<path d="M10 10H60V60H10ZM25 25H45V45H25Z"/>';
    expect(guess(letter, film)).toMatchObject({ roles: ['kiss'], lines: {} });
  });

  it('side by side are all kissed: nothing is cut through unasked', () => {
    expect(guess('<circle cx="20" cy="20" r="9"/><circle cx="60" cy="20" r="9"/>', film)).toMatchObject({
      roles: ['kiss'],
      lines: {},
    });
  });

  it('begin a job with those roles, to be changed by whoever looks', () => {
    const file = { name: 'Rings', format: 'svg' as const, source: '' };
    const job = startJob(file, draw(rings), machine, film);
    expect(job).toMatchObject({ lineRoles: { 0: 'through' }, areRolesGuessed: true });
  });
});

describe('card', () => {
  const box = '<rect x="10" y="10" width="80" height="80"/>';

  it('is folded along dashes within its outline, or scored where nothing creases', () => {
    const dashes = `${box}<path stroke-dasharray="3 2" d="M10 50H90"/>`;
    expect(guess(dashes, card).roles).toEqual(['through', 'crease']);
    expect(guess(dashes, { ...card, canCrease: false }).roles).toEqual(['through', 'score']);
  });

  it('is folded along an open line from edge to edge, slit along one that ends within', () => {
    expect(guess(`${box}<path stroke="#f00" d="M10 50H90"/>`, card).roles).toEqual(['through', 'crease']);
    expect(guess(`${box}<path stroke="#f00" d="M30 50H60"/>`, card).roles).toEqual(['through', 'slit']);
  });

  it('is slit by lines that end in the air, and cut along an outline in pieces', () => {
    expect(guess('<path d="M10 10H60"/><path d="M10 30H60"/>', card).roles).toEqual(['slit']);
    const pieces = '<path d="M10 10H60"/><path d="M60 10V60"/><path d="M60 60H10"/><path d="M10 60V10"/>';
    expect(guess(pieces, card).roles).toEqual(['through']);
  });

  it('keeps its tabs on a roll, outline and windows alike', () => {
    const windows = `${box}<circle cx="50" cy="50" r="9"/>`;
    expect(guess(windows, { ...card, isRollFed: true }).roles).toEqual(['perforated']);
  });

  it('has closed dashes torn off', () => {
    expect(guess(`${box}<circle stroke-dasharray="3 2" cx="50" cy="50" r="9"/>`, card).roles[1]).toBe(
      'perforated',
    );
  });
});

describe('die cuts on card, as twenty hands draw them', () => {
  const outcomes = DIE_CUTS.map(({ name, svg, folds }) => {
    const drawing = readSvg(svg);
    const guesses = guessRoles(drawing, card);
    const given = { roles: rolesOf(guesses), lineRoles: lineRolesOf(guesses) };
    const creased = drawing.contours.filter((line) => roleOf(line, given) === 'crease').map(({ id }) => id);
    return { name, folds, creased, isRight: creased.join() === folds.join() };
  });

  it('have their folds creased in eleven of twelve', () => {
    const folded = outcomes.filter(({ folds }) => folds.length > 0);
    const wrong = folded.filter(({ isRight }) => !isRight).map(({ name }) => name);
    // A closed frame in a colour of its own may as well be a window: nothing in the drawing tells.
    expect([folded.length, wrong]).toEqual([12, ['envelope, its folds a frame']]);
  });

  it('crease nothing where nothing is folded', () => {
    const plain = outcomes.filter(({ folds }) => folds.length === 0);
    expect([plain.length, plain.filter(({ creased }) => creased.length > 0)]).toEqual([8, []]);
  });
});

describe('areas without a line', () => {
  it('in several colours are art, printed whole; in one colour they are shapes to cut', () => {
    const two = '<circle cx="30" cy="30" r="20" fill="#c33"/><circle cx="30" cy="30" r="9" fill="#36c"/>';
    expect(guess(two, film, '').roles).toEqual(['art', 'art']);
    expect(guess('<circle cx="30" cy="30" r="20"/>', film, 'fill="#000"').roles).toEqual(['kiss']);
  });
});

describe('names of layers', () => {
  it.each([
    ['Fold lines', 'crease'],
    ['falz', 'crease'],
    ['Rilllinie 2', 'crease'],
    ['plis', 'crease'],
    ['hendido', 'crease'],
    ['Cordonatura', 'crease'],
    ['vouwlijn', 'crease'],
    ['mi-chair', 'kiss'],
    ['mezzo taglio', 'kiss'],
    ['perforación', 'perforated'],
    ['Schlitze', 'slit'],
    ['Fustella', 'through'],
    ['DieLine', 'through'],
    ['impresión', 'art'],
    ['Hilfslinien', 'ignore'],
    ['Print guides', 'ignore'],
  ])('%s: %s', (name, role) => expect(roleOfLayer(name)).toBe(role));

  it.each(['red-heart', 'folder', 'table', 'start', 'cut', 'Layer 1', 'blueprints for artists', ''])(
    '"%s" says nothing: only whole words count',
    (name) => expect(roleOfLayer(name)).toBeNull(),
  );
});
