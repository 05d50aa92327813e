const LONGEST_LINE = 100_000;

/** Whole lines of a text that comes in pieces. A line that never ends is dropped. */
export function splitLines(onLine: (line: string) => void): (bytes: Buffer) => void {
  let waiting = '';
  return (bytes) => {
    const lines = (waiting + bytes.toString('utf8')).split(/\r?\n|\r/);
    waiting = lines.pop() ?? '';
    if (waiting.length > LONGEST_LINE) waiting = '';
    for (const line of lines) if (line !== '') onLine(line);
  };
}
