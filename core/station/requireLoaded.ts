import { AppError } from '#core/errors/appError.ts';
import type { LoadedStation, Station } from '#core/station/station.ts';

/**
 * The station with the sheet that lies on it. @throws AppError `badInput` when none does
 *
 * @example requireLoaded(station).machine.name // 'Skua'
 */
export function requireLoaded(station: Station): LoadedStation {
  const { loaded } = station;
  if (!loaded) throw new AppError('badInput', 'no sheet is loaded at this station');
  return { ...station, loaded };
}
