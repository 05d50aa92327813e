import { execFile, execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { share, shareOr } from '#benchmarks/referee/figures.ts';
import type { Score } from '#benchmarks/referee/judge.ts';
import { ROOT } from '#commands/homeFolder.ts';

/** The commit whose figures the goals were set against. */
const FORMER = 'c5a53cd';
const run = promisify(execFile);

/** What an earlier commit scored; it knew fewer figures. */
export type FormerScore = Pick<
  Score,
  'name' | 'cuts' | 'loads' | 'mean' | 'tenth' | 'shareGood' | 'coverage'
>;

/**
 * Lets an earlier commit of this project deal with the same hidden sheets, by its own code.
 *
 * @returns `null` where its history is not here
 */
export async function playFormer(size: readonly number[]): Promise<readonly FormerScore[] | null> {
  const folder = mkdtempSync(join(tmpdir(), 'former-'));
  try {
    execFileSync('sh', ['-c', `git -C "$0" archive ${FORMER} | tar -x -C "$1"`, ROOT, folder], {
      stdio: 'pipe',
    });
    symlinkSync(join(ROOT, 'node_modules'), join(folder, 'node_modules'));
    const given = ['--import', 'tsx', 'benchmarks/referee/runWorld.ts', 'plain', ...size.map(String)];
    const { stdout } = await run(process.execPath, given, { cwd: folder, maxBuffer: 1e8 });
    return (JSON.parse(stdout) as { scores: readonly FormerScore[] }).scores;
  } catch {
    return null;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The commit that the goals were set against, on the same sheets in the same run. */
export function tellFormer(former: readonly FormerScore[] | null): readonly string[] {
  if (!former) return [`The history of this project is not here: commit ${FORMER} did not play.`];
  const rows = former.filter(({ name }) => name.startsWith('ours'));
  return [
    `The same sheets by commit ${FORMER}, which the goals were set against:`,
    '',
    '| strategy | cuts | loads | P, mean | P, tenth percentile | within 0.9 of best | 90 % interval covers |',
    '|---|---|---|---|---|---|---|',
    ...rows.map(
      ({ name, cuts, loads, mean, tenth, shareGood, coverage }) =>
        `| ${name} | ${cuts.toFixed(2)} | ${loads.toFixed(2)} | ${share(mean)} | ${share(tenth)} | ${share(shareGood)} | ${shareOr(coverage)} |`,
    ),
  ];
}
