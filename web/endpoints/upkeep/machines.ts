import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { MachineLink } from '#core/station/machine.ts';
import type { ServerContext } from '#server/context/context.ts';
import { refuseOwnAddress } from '#server/links/refuseOwnAddress.ts';
import { tryLink } from '#server/runs/tryLink.ts';
import { findGoingRuns } from '#store/repositories/runs/goingRuns.ts';
import { fitForceScale } from '#core/units/fitForceScale.ts';
import { addCalibration, removeCalibration } from '#store/repositories/book/calibrations.ts';
import {
  addMachine,
  changeMachine,
  findMachine,
  listMachines,
  setMachineArchived,
} from '#store/repositories/book/machines.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { changedSchema } from '#web/endpoints/book/materials.ts';
import {
  machineChangeSchema,
  machineSchema,
  newMachineSchema,
  readingsSchema,
} from '#web/schemas/station.ts';

const params = z.object({ id: idParam });

export const getMachines = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/machines',
  summary: 'All machines with their scales and limits.',
  reply: z.array(machineSchema).readonly(),
  handle: (_, { store }) => listMachines(store),
});

export const postMachine = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/machines',
  summary: 'Adds a machine and its station.',
  body: newMachineSchema,
  reply: z.object({ id: z.number() }),
  status: 201,
  handle: async ({ body, author }, { store, ownPorts }) => {
    await checkLink(body.link, ownPorts);
    return { id: await addMachine(store, body, new Date(), author) };
  },
});

export const putMachine = defineEndpoint({
  method: 'PUT',
  role: 'owner',
  path: '/api/machines/{id}',
  summary: 'Changes a machine.',
  params,
  body: machineChangeSchema,
  reply: changedSchema,
  handle: async (input, { store, ownPorts }) => {
    const { version, ...machine } = input.body;
    await checkLink(machine.link, ownPorts);
    return {
      undoId: await changeMachine(store, input.params.id, machine, version, input.author, new Date()),
    };
  },
});

export const postMachineArchive = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/machines/{id}/archive',
  summary: 'Puts a machine away, or takes it back out.',
  params,
  body: z.object({ isArchived: z.boolean() }),
  reply: changedSchema,
  handle: async ({ params: { id }, body, author }, { store }) => ({
    undoId: await setMachineArchived(store, id, body.isArchived, author, new Date()),
  }),
});

/** An address behind which the application itself is would be written to. */
async function checkLink(link: MachineLink, ownPorts: ServerContext['ownPorts']): Promise<void> {
  if (link.kind === 'address') await refuseOwnAddress(link, ownPorts);
}

export const postTry = defineEndpoint({
  method: 'POST',
  role: 'operator',
  change: 'outside',
  path: '/api/machines/{id}/try',
  summary: 'Moves the head 10 mm to the right and back with the tool up, to try the link.',
  params,
  reply: z.object({
    hasAnswered: z
      .boolean()
      .meta({ description: 'the machine itself confirmed it; otherwise somebody looks' }),
  }),
  handle: async ({ params: { id } }, context) => {
    const going = (await findGoingRuns(context.store)).find(({ machineId }) => machineId === id);
    if (going) {
      throw new AppError(
        'conflict',
        `The sheet of "${going.jobName}" is still in this machine: unload or stop it first.`,
      );
    }
    return { hasAnswered: await tryLink(await findMachine(context.store, id), context) };
  },
});

export const postCalibration = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/machines/{id}/calibrations',
  summary: 'Measures a force scale by readings of a balance under the tip; impossible readings are refused.',
  params,
  body: z.object({ readings: readingsSchema }),
  reply: machineSchema,
  status: 201,
  handle: async ({ params: { id }, body, author }, { store }) => {
    const { forceScale } = await findMachine(store, id);
    const fitted = fitForceScale(body.readings, forceScale);
    await addCalibration(store, id, body.readings, fitted, author, new Date());
    return findMachine(store, id);
  },
});

export const deleteCalibration = defineEndpoint({
  method: 'DELETE',
  role: 'operator',
  path: '/api/machines/{id}/calibrations/{calibrationId}',
  summary: 'Takes a calibration back; the one before it counts again.',
  params: z.object({ id: idParam, calibrationId: idParam }),
  reply: machineSchema,
  handle: async ({ params: { id, calibrationId }, author }, { store }) => {
    await removeCalibration(store, id, calibrationId, author, new Date());
    return findMachine(store, id);
  },
});
