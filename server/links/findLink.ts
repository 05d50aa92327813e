import { AppError } from '#core/errors/appError.ts';
import type { Machine, StandInModel } from '#core/station/machine.ts';
import type { Link } from '#server/links/link.ts';
import { openDevice } from '#server/links/openDevice.ts';
import { openSerial } from '#server/links/openSerial.ts';
import { openTcp } from '#server/links/openTcp.ts';
import { refuseOwnAddress, type OwnPort } from '#server/links/refuseOwnAddress.ts';
import { standInHands } from '#server/links/standInHands.ts';

/** What links need to know of where the application runs: its stand-ins, where there are any, and its own ports. */
export interface LinkPlaces {
  readonly standIns:
    | {
        readonly [Model in StandInModel]?:
          { readonly dataPort: number; readonly panelPort: number } | undefined;
      }
    | null;
  readonly ownPorts: readonly OwnPort[];
}

/** Where a machine is reached. @throws AppError `deviceUnreachable` when it has no link */
export function findLink({ link, name }: Machine, places: LinkPlaces): Link {
  switch (link.kind) {
    case 'address':
      return {
        words: `${link.host}, port ${link.port}`,
        isTwoWay: true,
        hands: null,
        open: async () => {
          await refuseOwnAddress(link, places.ownPorts);
          return openTcp(link.host, link.port);
        },
      };
    case 'serial':
      return { words: link.path, isTwoWay: true, hands: null, open: () => openSerial(link) };
    case 'device':
      return { words: link.path, isTwoWay: false, hands: null, open: () => openDevice(link.path) };
    case 'standIn': {
      const ports = places.standIns?.[link.model];
      if (!ports) throw new AppError('deviceUnreachable', 'The stand-in cutters are not running.');
      return {
        words: 'its stand-in',
        isTwoWay: true,
        hands: standInHands(ports.panelPort),
        open: () => openTcp('127.0.0.1', ports.dataPort),
      };
    }
    case 'none':
      throw new AppError(
        'deviceUnreachable',
        `${name} has no link. Download the machine file and take it there, or give it a link under Upkeep.`,
      );
  }
}
