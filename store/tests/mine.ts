/** Only for tests. One of several in a variable: files that run at the same time have a database, or an application, each. */
export function mine(variable: string): string {
  const all = (process.env[variable] ?? '').split(' ').filter(Boolean);
  const one = all[(Number(process.env['VITEST_POOL_ID'] ?? 1) - 1) % all.length];
  if (!one) throw new Error(`${variable} is not set; run the tests with ./feather test`);
  return one;
}
