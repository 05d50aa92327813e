/** Every expected reason for refusing something. `web/http/errorTable.ts` gives each its HTTP status. */
export const ERROR_CODES = [
  'badInput',
  'badDrawing',
  'notFound',
  'wrongMethod',
  'conflict',
  'outOfRange',
  'tooLarge',
  'wrongOrigin',
  'notSignedIn',
  'notAllowed',
  'tooManyTries',
  'cannotPlan',
  'notConfirmed',
  'deviceUnreachable',
  'deviceBusy',
  'deviceRefused',
  'busy',
  'keyReused',
  'outcomeUnknown',
  'storeUnavailable',
  'unforeseen',
] as const;
export type ErrorCode = (typeof ERROR_CODES)[number];

/**
 * A refusal with words for the person at the screen: what happened, with quantity, value and requirement.
 *
 * @example new AppError('outOfRange', 'exposure 1.4 mm is more than the holder\'s 1.0 mm', { exposureMm: 1.4 })
 */
export class AppError extends Error {
  readonly code: ErrorCode;
  readonly details: Readonly<Record<string, unknown>>;

  constructor(code: ErrorCode, message: string, details: Readonly<Record<string, unknown>> = {}) {
    super(message);
    this.name = 'AppError';
    this.code = code;
    this.details = details;
  }
}
