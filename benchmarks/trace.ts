import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { measureTrace, PIECE_MM, type Arrival, type TraceScore } from '#benchmarks/trace/measureTrace.ts';
import { openDrawings } from '#benchmarks/openSets/openDrawings.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';

/** Traces open emoji and icons back from their pixels, beside potrace, and writes docs/tracing.md. */
const SETS = [
  { name: '@iconify-json/noto', version: '1.2.9' },
  { name: '@iconify-json/fxemoji', version: '1.2.2' },
  { name: '@iconify-json/mdi', version: '1.2.3' },
] as const;
/** What is not drawn by filled outlines alone has no outlines to compare with. */
const OTHER = /stroke|clip-path|clipPath|mask|filter|opacity|<use|<image|<text|evenodd|style=/;
const PER_SET = 100;
const ROWS: readonly { readonly dpi: number; readonly arrival: Arrival }[] = [
  { dpi: 150, arrival: 'clear' },
  { dpi: 300, arrival: 'clear' },
  { dpi: 600, arrival: 'clear' },
  { dpi: 300, arrival: 'jpeg' },
];
/** Goals at 300 dpi: distance, area, nodes and time against the rival. */
const GOALS = { apartMm: 0.1, area: 0.005, nodes: 1.5, time: 1 } as const;

await reportFailure(async () => {
  const lines: string[] = [];
  for (const { dpi, arrival } of ROWS) {
    const all: TraceScore[] = [];
    for (const set of SETS) {
      const scores: TraceScore[] = [];
      for (const drawing of openDrawings(set, PER_SET, (body) => !OTHER.test(body))) {
        const score = await measureTrace(drawing, dpi, arrival);
        if (score) scores.push(score);
      }
      lines.push(tellRow(`${dpi} dpi, ${arrival}`, set.name.replace('@iconify-json/', ''), scores));
      all.push(...scores);
    }
    lines.push(tellRow(`${dpi} dpi, ${arrival}`, 'all', all));
    process.stderr.write(`${dpi} dpi, ${arrival}: done\n`);
  }
  const text = writeReport(lines);
  writeFileSync(join(ROOT, 'docs/tracing.md'), text);
  console.log(text);
});

function tellRow(how: string, set: string, scores: readonly TraceScore[]): string {
  const sum = (pick: (score: TraceScore) => number) => scores.reduce((total, one) => total + pick(one), 0);
  const quantile = (share: number, pick: (score: TraceScore) => number) => {
    const values = scores.map(pick).sort((a, b) => a - b);
    return values[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN;
  };
  const shareOf = (is: (score: TraceScore) => boolean) => scores.filter(is).length / scores.length;
  const cells = [
    how,
    set,
    String(scores.length),
    quantile(0.5, ({ ours }) => ours.apartMm).toFixed(3),
    quantile(0.95, ({ ours }) => ours.apartMm).toFixed(3),
    quantile(0.95, ({ rival }) => rival.apartMm).toFixed(3),
    `${(100 * shareOf(({ ours }) => ours.apartMm <= GOALS.apartMm)).toFixed(0)} %`,
    `${(100 * quantile(0.95, ({ ours }) => ours.area)).toFixed(2)} %`,
    `${(100 * quantile(0.95, ({ rival }) => rival.area)).toFixed(2)} %`,
    (sum(({ ours }) => ours.nodes) / sum(({ rival }) => rival.nodes)).toFixed(2),
    (sum(({ ours }) => ours.ms) / scores.length).toFixed(0),
    (sum(({ rival }) => rival.ms) / scores.length).toFixed(0),
  ];
  return `| ${cells.join(' | ')} |`;
}

function writeReport(lines: readonly string[]): string {
  return `# Tracing, measured

Written by \`./feather trace\` on ${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.version}.

${SETS.length * PER_SET} emoji and icons of open sets (${SETS.map(({ name, version }) => `\`${name}\` ${version}`).join(', ')}), ${PIECE_MM} mm long, are drawn to pixels
from their vectors, traced back, and compared with the union of their own outlines: how far 95 in 100 points of either
lie from the other, and by how much of its area the trace is off. The rival is Debian's potrace on the same pixels. As
JPEG they lie darkened on white (quality 80) and are told from their ground by its colour.

Goals at 300 dpi: distance at most ${GOALS.apartMm} mm, area within ${100 * GOALS.area} %, at most ${GOALS.nodes} times the rival's nodes, and not slower. The rival's
time holds the start of its process and the writing of its file, ours neither.

| pictures | set | count | apart, median, mm | apart, 95th of all, mm | rival | within ${GOALS.apartMm} mm | area off, 95th | rival | nodes, ours over rival's | ms | rival |
|---|---|---|---|---|---|---|---|---|---|---|---|
${lines.join('\n')}
`;
}
