import { z } from 'zod';
import { writeCardFile, writeCardSvg } from '#core/protocol/writeCard.ts';
import { fileOptionsOf } from '#core/protocol/machineFile.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import { findStation } from '#store/repositories/bench/stations.ts';
import { drawJudgedPiece } from '#web/endpoints/dialIn/drawJudgedPiece.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { replyWithFile, replyWithMachineFile, SVG_TYPE } from '#web/http/replyWithFile.ts';
import { judgedPieceQuerySchema, quantitySchema } from '#web/schemas/judgedPieces.ts';

/** A test square does not tell how a piece will hold: the file of one real piece, or of one crease. */
export const getJudgedPiece = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/stations/{machineId}/judged/{quantity}/piece',
  summary:
    'A perforated piece of the real size, its tabs at the kiss force, or a crease strip: machine file or SVG.',
  params: z.object({ machineId: idParam, quantity: quantitySchema }),
  query: judgedPieceQuerySchema,
  reply: z.string().meta({ description: 'a machine file or image/svg+xml' }),
  handle: async ({ params, query }, { store }) => {
    const station = requireLoaded(await findStation(store, params.machineId));
    const { card, sheet, values } = await drawJudgedPiece(store, station, params.quantity, query);
    if (query.format === 'svg')
      return replyWithFile(writeCardSvg(card, sheet, 'cut'), SVG_TYPE, 'piece.svg', 'inline');
    const { machine } = station;
    const options = fileOptionsOf(machine);
    const file = writeCardFile(card, sheet.heightMm, values, options, values.tabForce ?? null);
    return replyWithMachineFile(file, machine.language, 'piece');
  },
});
