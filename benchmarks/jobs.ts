import { mkdirSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import type { JobMeasures } from '#benchmarks/measureJobs.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';

/**
 * Measures reading, travel, layout and perforation beside their rivals in one run, bundled as the application is, and
 * writes docs/job-benchmarks.md. What misses its goal is said there.
 */
await reportFailure(async () => {
  const folder = join(ROOT, '.feather');
  mkdirSync(folder, { recursive: true });
  const outfile = join(folder, 'measure-jobs.mjs');
  await build({
    entryPoints: [join(ROOT, 'benchmarks/measureJobs.ts')],
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile,
    logLevel: 'error',
    alias: { 'maxrects-packer': join(ROOT, 'node_modules/maxrects-packer/dist/maxrects-packer.mjs') },
  });
  const { measureJobs } = (await import(pathToFileURL(outfile).href)) as {
    measureJobs: (root: string) => JobMeasures;
  };
  const text = writeReport(measureJobs(ROOT));
  writeFileSync(join(ROOT, 'docs/job-benchmarks.md'), text);
  console.log(text);
});

function writeReport({ reading, tsplib, scattered, travel, nesting, perforation }: JobMeasures): string {
  const met = (is: boolean) => (is ? 'yes' : '**no**');
  const s = (ms: number) => (ms / 1000).toFixed(2);
  return `# Benchmarks of jobs

Written by \`./feather jobs\` on ${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.version}. Every line was measured in this run beside its rival.

## Reading SVG
The rival is the bare parse of the same text by the XML parser (saxes), with a handler that does nothing. Least of ${reading[0]?.rounds ?? 0} rounds in turns. Goal: at most 4 times.

| drawing | MB | lines | bare parse, ms | reading, ms | times | met |
|---|---|---|---|---|---|---|
${reading
  .map(
    ({ name, megabytes, lines, bareMs, readMs }) =>
      `| ${name} | ${megabytes.toFixed(1)} | ${lines} | ${bareMs.toFixed(0)} | ${readMs.toFixed(0)} | ${(readMs / bareMs).toFixed(1)} | ${met(readMs <= 4 * bareMs)} |`,
  )
  .join('\n')}

## Travel order
Round trips of TSPLIB (Reinelt 1991). Goal: within 4 % of the optimum.

| instance | optimum | found | over | s | met |
|---|---|---|---|---|---|
${tsplib
  .map(
    ({ name, optimum, found, ms }) =>
      `| ${name} | ${optimum} | ${found} | ${((100 * found) / optimum - 100).toFixed(2)} % | ${s(ms)} | ${met(found <= 1.04 * optimum)} |`,
  )
  .join('\n')}

Points at random; the bound is that of Held and Karp (1970), below which no round trip is. Goal: within 4 % of it.

| lines | bound, m | nearest neighbour | ours | over the bound | s | met |
|---|---|---|---|---|---|---|
${scattered
  .map(
    ({ count, boundMm, nearestMm, oursMm, oursMs }) =>
      `| ${count} | ${(boundMm / 1000).toFixed(2)} | ${(nearestMm / 1000).toFixed(2)} | ${(oursMm / 1000).toFixed(2)} | ${((100 * oursMm) / boundMm - 100).toFixed(2)} % | ${s(oursMs)} | ${met(oursMm <= 1.04 * boundMm)} |`,
  )
  .join('\n')}

${travel.contours} closed contours scattered over a sheet; the rival is the plain nearest neighbour entering each at its nearest vertex. Goal: at least 15 % shorter in under 3 s.

| | travel, m | s |
|---|---|---|
| nearest neighbour | ${(travel.nearestMm / 1000).toFixed(2)} | ${s(travel.nearestMs)} |
| **ours** | ${(travel.oursMm / 1000).toFixed(2)} | ${s(travel.oursMs)} |

${(100 - (100 * travel.oursMm) / travel.nearestMm).toFixed(1)} % shorter; met: ${met(travel.oursMm <= 0.85 * travel.nearestMm && travel.oursMs < 3000)}.

## Layout
The rival packs bounding boxes with the same spacing (maxrects-packer, turns allowed). Goal: at least 12 % more pieces, or as much less sheet, in under 20 s; rectangles leave no bays to lie in, and are to be no worse.

| shapes | copies | boxes | ours | gain | s | met |
|---|---|---|---|---|---|---|
${nesting
  .map(
    ({ name, copies, boxes, ours, unit, gain, isRectangles, ms }) =>
      `| ${name} | ${copies} | ${boxes} ${unit} | ${ours} ${unit} | ${(100 * gain).toFixed(1)} % | ${s(ms)} | ${met(gain >= (isRectangles ? 0 : 0.12) && ms < 20_000)} |`,
  )
  .join('\n')}

## Perforation
${perforation.contours} contours with ${perforation.tabs} tabs placed and cut into stretches in ${s(perforation.ms)} s. Goal: under 1 s; met: ${met(perforation.ms < 1000)}.
`;
}
