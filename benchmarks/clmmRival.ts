import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { EvidenceSheet } from '#core/knowledge/evidence.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { hasLiner } from '#core/stack/layer.ts';

/** A fit of a book and the fit that a published package makes of the same trials, in one run. */
export interface RivalTiming {
  readonly trials: number;
  readonly ours: { readonly seconds: number; readonly logLikelihood: number };
  /** `null` where R, or its package, is not installed. */
  readonly clmm: {
    readonly seconds: number;
    readonly logLikelihood: number;
    readonly version: string;
  } | null;
}

/**
 * The cumulative link mixed model that one would write for such data without knowing the trade: grades by ln force, with
 * a random effect of the material and of the machine, probit link, Laplace's approximation.
 *
 * Source: Christensen 2022, ordinal: Regression Models for Ordinal Data, R package.
 */
const SCRIPT = `
suppressMessages(library(ordinal))
d <- read.csv(commandArgs(trailingOnly = TRUE)[1])
d$grade <- ordered(d$grade); d$material <- factor(d$material); d$machine <- factor(d$machine)
t <- system.time(fit <- clmm(grade ~ lnForce + (1 | material) + (1 | machine), data = d, link = "probit"))
cat(t[["elapsed"]], as.numeric(logLik(fit)), as.character(packageVersion("ordinal")))
`;

/** Both fits of the layered sheets of a book: a single layer shows other grades. */
export function timeRival(book: readonly EvidenceSheet[]): RivalTiming {
  const layered = book.filter(({ traits }) => hasLiner(traits.stack));
  const started = performance.now();
  const { logMarginal } = fitKnowledge(layered);
  const seconds = (performance.now() - started) / 1000;
  return {
    trials: layered.reduce((sum, { trials }) => sum + trials.length, 0),
    ours: { seconds, logLikelihood: logMarginal },
    clmm: askR(layered),
  };
}

function askR(book: readonly EvidenceSheet[]): RivalTiming['clmm'] {
  const folder = mkdtempSync(join(tmpdir(), 'feather-clmm-'));
  try {
    const rows = book.flatMap(({ materialId, machineId, trials }) =>
      trials.map(({ grade, forceGf }) => [grade, Math.log(forceGf), materialId, machineId].join(',')),
    );
    writeFileSync(join(folder, 'trials.csv'), ['grade,lnForce,material,machine', ...rows, ''].join('\n'));
    writeFileSync(join(folder, 'fit.R'), SCRIPT);
    const asked = ['--vanilla', join(folder, 'fit.R'), join(folder, 'trials.csv')];
    const { stdout, status } = spawnSync('Rscript', asked, { encoding: 'utf8' });
    if (status !== 0) return null;
    const [seconds, logLikelihood, version = ''] = stdout.trim().split(' ');
    return { seconds: Number(seconds), logLikelihood: Number(logLikelihood), version };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
