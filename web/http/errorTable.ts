import type { ErrorCode } from '#core/errors/appError.ts';

/** The HTTP status of each refusal and the words that stand before its message. */
export const ERROR_TABLE: Readonly<Record<ErrorCode, { readonly status: number; readonly title: string }>> = {
  badInput: { status: 400, title: 'That cannot be taken' },
  badDrawing: { status: 422, title: 'This drawing cannot be read' },
  notFound: { status: 404, title: 'Not found' },
  wrongMethod: { status: 405, title: 'Not done this way' },
  conflict: { status: 409, title: 'Changed meanwhile' },
  outOfRange: { status: 422, title: 'Outside what the machine can do' },
  tooLarge: { status: 413, title: 'Too large' },
  wrongOrigin: { status: 403, title: 'Not from here' },
  notSignedIn: { status: 401, title: 'Sign in first' },
  notAllowed: { status: 403, title: 'Not yours to do' },
  tooManyTries: { status: 429, title: 'Too many tries' },
  cannotPlan: { status: 422, title: 'Not ready to cut' },
  notConfirmed: { status: 409, title: 'Not sent yet' },
  deviceUnreachable: { status: 502, title: 'The cutter does not answer' },
  deviceBusy: { status: 409, title: 'The cutter is busy' },
  deviceRefused: { status: 502, title: 'The cutter refused' },
  busy: { status: 503, title: 'Too much at once' },
  keyReused: { status: 422, title: 'Asked before for something else' },
  outcomeUnknown: { status: 503, title: 'Not known whether this was kept' },
  unforeseen: { status: 500, title: 'The server failed' },
  storeUnavailable: { status: 503, title: 'The database cannot be reached' },
};
