/** Minutes after midnight as a clock shows them; beyond midnight it goes on from 00. */
export function clockOf(minutes: number): string {
  const whole = Math.round(minutes);
  const hours = Math.floor(whole / 60) % 24;
  return `${String(hours).padStart(2, '0')}:${String(whole % 60).padStart(2, '0')}`;
}

/** Minutes after midnight, or `null` for what is no time. */
export function readClock(text: string): number | null {
  const match = /^(\d{1,2}):(\d{2})$/.exec(text);
  return match ? Number(match[1]) * 60 + Number(match[2]) : null;
}
