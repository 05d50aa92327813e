import { AppError } from '#core/errors/appError.ts';
import type { Machine } from '#core/station/machine.ts';
import type { ServerContext } from '#server/context.ts';
import type { CutterAddress } from '#server/links/cutterLink.ts';

/** Where a machine's files go. @throws AppError `deviceUnreachable` when it has no link */
export function findCutter(machine: Machine, standIns: ServerContext['standIns']): CutterAddress {
  switch (machine.link.kind) {
    case 'address':
      return { host: machine.link.host, dataPort: machine.link.port, panelPort: null };
    case 'standIn': {
      if (!standIns) throw new AppError('deviceUnreachable', 'The stand-in cutters are not running.');
      return { host: '127.0.0.1', ...standIns[machine.link.model] };
    }
    case 'none':
      throw new AppError(
        'deviceUnreachable',
        `${machine.name} has no link. Download the machine file and take it there, or give it a link under Upkeep.`,
      );
  }
}
