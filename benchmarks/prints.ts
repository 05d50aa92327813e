import { writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { join } from 'node:path';
import { EMOJI_SETS, openDrawings, writeOpenDrawing } from '#benchmarks/openSets/openDrawings.ts';
import { measurePrint, type PrintScore } from '#benchmarks/prints/measurePrint.ts';
import { ROOT } from '#commands/homeFolder.ts';
import { reportFailure } from '#commands/reportFailure.ts';

/** Prints open emoji as art, compares each page with the file as librsvg draws it, and writes docs/printing.md. */
const PER_SET = 40;
/** An inch and a half: 900 dots of the printer. */
const PIECE_MM = 38.1;
/** Most pixels that may differ. */
const GOAL = 0.02;

await reportFailure(async () => {
  const sets: { readonly name: string; readonly scores: readonly PrintScore[] }[] = [];
  for (const set of EMOJI_SETS) {
    const scores: PrintScore[] = [];
    for (const drawing of openDrawings(set, PER_SET))
      scores.push(await measurePrint(drawing.name, writeOpenDrawing(drawing, PIECE_MM)));
    sets.push({ name: `${set.name.replace('@iconify-json/', '')} ${set.version}`, scores });
    process.stderr.write(`${set.name}: done\n`);
  }
  const text = writeReport(sets);
  writeFileSync(join(ROOT, 'docs/printing.md'), text);
  console.log(text);
  const missed = sets.flatMap(({ scores }) => scores.filter(({ differs }) => differs > GOAL));
  if (missed.length > 0) process.stderr.write(`${missed.length} differ by more than ${100 * GOAL} %\n`);
});

function percent(share: number): string {
  return `${(100 * share).toFixed(2)} %`;
}

function tellSet({
  name,
  scores,
}: {
  readonly name: string;
  readonly scores: readonly PrintScore[];
}): string {
  const most = (pick: (score: PrintScore) => number) => Math.max(...scores.map(pick));
  const mean = (pick: (score: PrintScore) => number) =>
    scores.reduce((sum, score) => sum + pick(score), 0) / scores.length;
  const within = (pick: (score: PrintScore) => number) =>
    scores.filter((score) => pick(score) <= GOAL).length;
  const cells = [
    name,
    String(scores.length),
    String(scores.filter(({ isFromFile }) => isFromFile).length),
    percent(mean(({ differs }) => differs)),
    percent(most(({ differs }) => differs)),
    String(within(({ differs }) => differs)),
    percent(most(({ linesDiffer }) => linesDiffer)),
    String(within(({ linesDiffer }) => linesDiffer)),
    String(scores.filter(({ cutsWithin }) => cutsWithin > 0).length),
    mean(({ ms }) => ms).toFixed(0),
    mean(({ kilobytes }) => kilobytes).toFixed(0),
  ];
  return `| ${cells.join(' | ')} |`;
}

function tellPicture({ name, isFromFile, differs, linesDiffer }: PrintScore): string {
  return `| ${name} | ${isFromFile ? 'the file' : 'its lines'} | ${percent(differs)} | ${percent(linesDiffer)} |`;
}

function writeReport(
  sets: readonly { readonly name: string; readonly scores: readonly PrintScore[] }[],
): string {
  return `# Printed art, compared picture by picture

Written by \`./feather prints\` on ${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores, Node ${process.version}.

${PER_SET} emoji of each of ${EMOJI_SETS.length} open sets, ${PIECE_MM} mm long, are printed as the art of a job. The page is drawn by poppler at 600 dpi
and compared with the same file drawn by Debian's librsvg on white. A pixel differs where a channel is off by more than
a tenth. Goal: at most ${percent(GOAL)} of the pixels of every picture.

Art of plain colours is printed as vectors, all else as the file itself at 600 dpi. Beside it stands what comes out
where lines are painted in their colours and nothing else of the file is heeded. Each is also opened as a sticker on film:
how many begin with a cut inside their art is counted (goal: none).

| set | pictures | printed from the file | differ, mean | worst | within the goal | lines alone, worst | within the goal | with cuts inside the art | ms a page | kB a page |
|---|---|---|---|---|---|---|---|---|---|---|
${sets.map(tellSet).join('\n')}
${sets
  .map(
    ({ name, scores }) => `
## ${name}

| picture | printed from | differs | lines alone |
|---|---|---|---|
${scores.map(tellPicture).join('\n')}
`,
  )
  .join('')}`;
}
