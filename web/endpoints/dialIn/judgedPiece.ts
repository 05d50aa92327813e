import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { composeCard, measureCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { writeCardFile, writeCardSvg } from '#core/protocol/writeCard.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { suggestValues } from '#core/setting/suggestValues.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { snapForce } from '#core/units/forceScale.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { findLoadedSetting } from '#web/endpoints/bench/findLoadedSetting.ts';
import { replyWithFile, replyWithMachineFile, SVG_TYPE } from '#web/http/replyWithFile.ts';
import { judgedPieceQuerySchema, quantitySchema } from '#web/schemas/judgedPieces.ts';

/** A test square does not tell how a piece will hold: the file of one real piece, or of one crease. */
export const getJudgedPiece = defineEndpoint({
  method: 'GET',
  path: '/api/stations/{machineId}/judged/{quantity}/piece',
  summary:
    'A perforated piece of the real size, its tabs at the kiss force, or a crease strip: machine file or SVG.',
  params: z.object({ machineId: idParam, quantity: quantitySchema }),
  query: judgedPieceQuerySchema,
  reply: z.string().meta({ description: 'a machine file or image/svg+xml' }),
  handle: async ({ params, query }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { loaded, machine, blade } = station;
    const isTabs = params.quantity === 'tabs';
    const [base, kiss] = await Promise.all([
      findLoadedSetting(store, station, isTabs ? 'through' : 'crease'),
      findLoadedSetting(store, station, 'kiss'),
    ]);
    if (isTabs && !base)
      throw new AppError('badInput', 'find the through cut first: the piece is freed with it');
    const values =
      base?.revision.values ??
      suggestValues(loaded.material, loaded.condition, machine, blade, 'through', 300).values;
    const piece = makeTestPiece(isTabs ? 'coupon' : 'crease', query);
    const force = snapForce(isTabs ? values.force : (query.force ?? values.force), machine.forceScale);
    const cell = { force, speed: values.speed, passes: isTabs ? values.passes : query.passes };
    const margin = machine.marginMm;
    const card = composeCard(piece, [cell], { x: margin, y: margin });
    const { widthMm, heightMm } = measureCard(piece, 1);
    const sheet = { widthMm: widthMm + 2 * margin, heightMm: heightMm + 2 * margin };
    if (query.format === 'svg')
      return replyWithFile(writeCardSvg(card, sheet, 'cut'), SVG_TYPE, 'piece.svg', 'inline');
    const tabForce = isTabs ? (kiss?.revision.values.force ?? null) : null;
    const file = writeCardFile(card, sheet.heightMm, values, fileOptionsOf(machine), tabForce);
    return replyWithMachineFile(file, machine.language, 'piece');
  },
});
