import { perforationOf } from '#core/setting/derivePerforated.ts';
import { AppError } from '#core/errors/appError.ts';
import type { DialIn, DialInScrap } from '#core/dialIn/dialIn.ts';
import { composeCard, findPlace, measureCard, type CardCell, type TestCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece, type TestPieceKind } from '#core/dialIn/testPiece.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Station } from '#core/station/station.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/** Cells in a row: a card stays narrow enough for a hand. */
const COLUMNS = 6;

/**
 * Takes room for a card on the scrap of a dial-in.
 *
 * @throws AppError `badInput` when the scrap is used up
 */
export function reserveCard(dialIn: DialIn, station: Station, cells: number): DialInScrap {
  const { scrap } = dialIn;
  const size = measureCard(makeTestPiece(scrap.piece, undefined, scrap.spot), cells, COLUMNS);
  const place = requirePlace(size, scrap, station);
  const box = {
    minX: place.x,
    minY: place.y,
    maxX: place.x + size.widthMm,
    maxY: place.y + size.heightMm,
  };
  return { ...scrap, taken: [...scrap.taken, box] };
}

/** A free place for a card; a small scrap needs no more margin than a sixth of it. */
function requirePlace(
  size: ReturnType<typeof measureCard>,
  scrap: DialInScrap,
  { machine }: Station,
): PointMm {
  const marginMm = Math.min(machine.marginMm, scrap.widthMm / 6, scrap.heightMm / 6);
  const place = findPlace(size, { ...scrap, marginMm });
  if (place) return place;
  const needed = `${size.widthMm.toFixed(0)} × ${size.heightMm.toFixed(0)} mm`;
  throw new AppError(
    'badInput',
    `this scrap has no room left for a card of ${needed}: take a fresh one, a larger one, or a smaller piece`,
  );
}

interface CardRequest {
  readonly piece?: TestPieceKind | undefined;
  readonly vary: 'force' | 'speed' | 'passes';
  readonly card: 'next' | 'ladder' | 'waiting';
  /** Of a piece of its own, on the machine's scale; the advised one when left out. */
  readonly force?: number | undefined;
}

/** The card that a dial-in would cut, or waits to have graded, with the scrap it lies on. */
export function drawTestCard(
  dialIn: DialIn,
  station: Station,
  answer: NonNullable<BenchAnswer['answer']>,
  { piece, vary, card, force }: CardRequest,
): { readonly card: TestCard; readonly values: SettingValues; readonly scrap: DialInScrap } {
  const { scrap } = dialIn;
  const { values } = answer;
  const kind = piece ?? scrap.piece;
  const perforation = {
    widthMm: 40,
    heightMm: 30,
    ...perforationOf(values),
  };
  const shape = makeTestPiece(kind, perforation, scrap.spot);
  const cells = listCells(dialIn, station, answer, { vary, card, force });
  const last = card === 'waiting' ? scrap.taken.at(-1) : undefined;
  const place = last
    ? { x: last.minX, y: last.minY }
    : requirePlace(measureCard(shape, cells.length, COLUMNS), scrap, station);
  const labelOf = (cell: CardCell) => String(Number(cell[vary].toFixed(1)));
  return { card: composeCard(shape, cells, place, COLUMNS, labelOf), values, scrap };
}

function listCells(
  { card: waiting, passes, speed }: DialIn,
  { machine }: Station,
  { advisedForce, bestForce, ladder }: NonNullable<BenchAnswer['answer']>,
  { vary, card, force }: Omit<CardRequest, 'piece'>,
): readonly CardCell[] {
  if (vary === 'speed') {
    const { min, step } = machine.speedScale;
    const slower = [1, 0.7, 0.5, 0.35].map((share) =>
      Math.max(min, Math.round((speed * share) / step) * step),
    );
    return [...new Set(slower)].map((one) => ({ force: bestForce, speed: one, passes }));
  }
  if (vary === 'passes') return [1, 2, 3, 4].map((count) => ({ force: bestForce, speed, passes: count }));
  const forces =
    card === 'waiting' ? (waiting?.forces ?? []) : card === 'ladder' ? ladder : [force ?? advisedForce];
  if (forces.length === 0) throw new AppError('notFound', 'no card waits for its grades');
  return forces.map((force) => ({ force, speed, passes }));
}
