import { IDENTITY } from '#core/geometry/affine.ts';
import type { ProgramPart, RunProgram } from '#core/program/runProgram.ts';
import { cutMetresOf } from '#core/run/measureRun.ts';
import type { Run } from '#core/run/run.ts';

/** What hands do at a real machine, told to the stand-in: which sheet lies on it, the exposure, the dials. */
export function describeLoad(run: Run, part: ProgramPart, program: RunProgram, jobKey: string): object {
  const { file, grounds, hold, isPrinted, marks, gloss, sheet, bladeMetres } = program;
  const first = part.passes[0];
  const isDialled = !file.carries.force && first;
  return {
    order: 'load',
    jobKey,
    sheet,
    exposureMm: part.exposureMm > 0 ? part.exposureMm : 0.1,
    bladeMetres: bladeMetres + cutMetresOf(run),
    isFreshSheet: run.outcomes.length === 0,
    ...(part.fitted ? { seats: part.fitted.map((tool, at) => ({ tool, over: grounds?.[at] ?? null })) } : {}),
    ...(hold ? { hold } : {}),
    ...(isPrinted
      ? {
          printed: {
            widthMm: run.sheetWidthMm,
            heightMm: run.sheetHeightMm,
            gloss,
            ...(marks ? { marks } : {}),
            corrected: file.placing?.correction ?? IDENTITY,
          },
        }
      : {}),
    ...(isDialled ? { dialled: { force: first.values.force, speed: first.values.speed } } : {}),
    ...(first?.panelCut === undefined ? {} : { panelCuts: dialledUntil(program, part) }),
  };
}

/** What the numbered cuts of the panel hold while a part runs: each as it was dialled last. */
function dialledUntil({ parts }: RunProgram, part: ProgramPart): readonly object[] {
  const until = parts.slice(0, parts.indexOf(part) + 1).flatMap(({ passes }) => passes);
  const held = new Map<number, object>();
  for (const { panelCut, values, seat } of until) {
    if (panelCut === undefined) continue;
    held.set(panelCut, { number: panelCut, seat, force: values.force, speed: values.speed });
  }
  return [...held.values()];
}
