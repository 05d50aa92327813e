import { AppError } from '#core/errors/appError.ts';

/** What a person can do about a link that does not open or breaks, by the system's own name of the problem. */
const DEVICE_WORDS: Readonly<Record<string, (path: string) => string>> = {
  EACCES: (path) =>
    `This computer does not let the application use ${path}. Add its user to the group that owns it (ls -l ${path} shows which: often lp for printer devices, dialout for serial lines), then sign in again and start it anew.`,
  EPERM: (path) => `This computer does not let the application use ${path}.`,
  EBUSY: (path) => `Another program is using ${path}: close it and try again.`,
  EAGAIN: (path) => `Another program is using ${path}: close it and try again.`,
  ENOENT: (path) =>
    `There is no ${path}. Is the machine on and plugged in? After plugging in it may have another name.`,
  ENXIO: (path) => `Nothing is behind ${path}. Is the machine on and plugged in?`,
  ENODEV: (path) => `Nothing is behind ${path}. Is the machine on and plugged in?`,
  EIO: (path) => `The machine at ${path} is gone: was it unplugged or switched off?`,
  EPIPE: (path) => `The machine at ${path} is gone: was it unplugged or switched off?`,
  ENOTTY: (path) => `${path} is no serial line.`,
  EISDIR: (path) => `${path} is a folder, no machine.`,
};

/** The words for a problem with a device of this computer. */
export function deviceWords(problem: unknown, path: string): string {
  const words = DEVICE_WORDS[codeOf(problem)];
  if (words) return words(path);
  const reason = problem instanceof Error ? problem.message : String(problem);
  return `${path} cannot be used: ${reason.slice(0, 120)}.`;
}

/** The refusal for a device that does not open or breaks. */
export function deviceProblem(problem: unknown, path: string): AppError {
  const isBusy = codeOf(problem) === 'EBUSY' || codeOf(problem) === 'EAGAIN';
  return new AppError(isBusy ? 'deviceBusy' : 'deviceUnreachable', deviceWords(problem, path));
}

/** The system's name of a problem; the serial driver says it in words only. */
export function codeOf(problem: unknown): string {
  if (!(problem instanceof Error)) return '';
  if ('code' in problem && typeof problem.code === 'string') return problem.code;
  const spoken: readonly (readonly [RegExp, string])[] = [
    [/permission denied/i, 'EACCES'],
    [/no such file/i, 'ENOENT'],
    [/cannot lock|resource busy|temporarily unavailable/i, 'EBUSY'],
    [/no such device/i, 'ENXIO'],
    [/input\/output error|bad file descriptor/i, 'EIO'],
    [/inappropriate ioctl|not a typewriter/i, 'ENOTTY'],
  ];
  return spoken.find(([pattern]) => pattern.test(problem.message))?.[1] ?? '';
}
