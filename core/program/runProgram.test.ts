import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { listRunStrokes } from '#core/program/listRunStrokes.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import {
  addRepeat,
  makeProgram,
  spanOfPart,
  type ProgramPart,
  type RunProgram,
} from '#core/program/runProgram.ts';
import { writePart } from '#core/protocol/writePart.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { plotterFile, samplePlan } from '#core/tests/sampleJob.ts';

const values = (force: number, exposureMm: number, passes = 1) => ({
  force,
  exposureMm,
  speed: 100,
  passes,
  offsetMm: 0.25,
  overcutMm: 0,
});
const svg = `<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none">
  <g stroke="#ff0000"><circle cx="15" cy="15" r="5"/><circle cx="40" cy="15" r="5"/></g>
  <g stroke="#0000ff"><circle cx="15" cy="15" r="8"/><circle cx="40" cy="15" r="8"/></g></svg>`;
const roles = { '|#ff0000': 'kiss', '|#0000ff': 'through' } as const;
const facts = {
  file: plotterFile(),
  sheetHeightMm: 60,
  bladeMetres: 0,
  sheet: { key: 'x', family: 'plainVinyl', darkness: 0, layers: [] },
};

function make(kissExposure: number, throughPasses = 1) {
  const plan = samplePlan(readSvg(svg).contours, roles, {
    kiss: values(60, kissExposure),
    through: values(200, 0.5, throughPasses),
  });
  const strokes = listRunStrokes(plan);
  return { strokes, program: makeProgram(splitParts(plan.passes, { force: true, speed: true }), facts) };
}

/** A part as the machine file that it makes. */
function textOf(strokes: readonly RunStroke[], part: ProgramPart, from: number, program: RunProgram): string {
  return writePart(strokes, part, from, program)
    .map(({ text }) => text)
    .join('');
}

describe('the program of a run', () => {
  it('numbers strokes through all parts, and stops where hands are needed', () => {
    const { strokes, program } = make(0.3);
    expect(program.parts).toHaveLength(2);
    expect(program.parts.map(spanOfPart)).toEqual([
      { from: 0, to: 2 },
      { from: 2, to: strokes.length },
    ]);
    expect(program.parts[1]!.before).toMatch(/exposure/);
    expect(make(0.5).program.parts).toHaveLength(1);
  });

  it('writes a part from any stroke on: what was acknowledged before is not in it', () => {
    const { strokes, program } = make(0.5);
    const [part] = program.parts;
    const strokesIn = (from: number) => (textOf(strokes, part!, from, program).match(/PD/g) ?? []).length;
    for (let from = 0; from <= strokes.length; from++) expect(strokesIn(from)).toBe(strokes.length - from);
    // The middle of the second pass: its force is set anew, that of the first is not in the file.
    const late = textOf(strokes, part!, 3, program);
    expect(late).toMatch(/^IN;PA;SP1;\nVS100;\nFS200;PU/);
    expect(late).not.toMatch(/FS60/);
  });

  it('writes the same file from the stored program as from the plan', () => {
    const { strokes, program } = make(0.5);
    const stored = JSON.parse(JSON.stringify({ strokes, program })) as {
      strokes: RunStroke[];
      program: typeof program;
    };
    expect(textOf(stored.strokes, stored.program.parts[0]!, 0, stored.program)).toBe(
      textOf(strokes, program.parts[0]!, 0, program),
    );
  });

  it('repeats each path of an operation once, at the same numbers, whatever its passes', () => {
    const { strokes, program } = make(0.5, 2);
    const more = addRepeat(program, strokes, 'through')!;
    expect(more.strokes).toHaveLength(2);
    expect(more.strokes.map(({ repeat }) => repeat)).toEqual([2, 2]);
    const last = more.program.parts.at(-1)!;
    expect(last.before).toBeNull();
    expect(spanOfPart(last)).toEqual({ from: strokes.length, to: strokes.length + 2 });
    expect(last.passes[0]!.values.force).toBe(200);
    // And once more after that.
    const again = addRepeat(more.program, [...strokes, ...more.strokes], 'through')!;
    expect(again.strokes.map(({ repeat }) => repeat)).toEqual([3, 3]);
    expect(addRepeat(program, strokes, 'crease')).toBeNull();
  });

  it('has the panel dialled again for a repeat, unless it is dialled so already or holds the cut by number', () => {
    const plan = samplePlan(readSvg(svg).contours, roles, {
      kiss: values(60, 0.5),
      through: values(200, 0.5),
    });
    const strokes = listRunStrokes(plan);
    const byPanel = { force: false, speed: false };
    const repeatOf = (panelCuts: number, role: 'kiss' | 'through') => {
      const program = makeProgram(splitParts(plan.passes, byPanel, panelCuts), {
        ...facts,
        file: plotterFile(false),
      });
      return { program, last: addRepeat(program, strokes, role)!.program.parts.at(-1)! };
    };
    expect(repeatOf(1, 'kiss').last.before).toBe('Dial force 60 at the panel');
    expect(repeatOf(1, 'through').last.before).toBeNull();
    const { program, last } = repeatOf(4, 'kiss');
    expect(last.before).toBeNull();
    // The file chooses: cut 1, then cut 2, in one go.
    expect(program.parts).toHaveLength(1);
    const text = textOf(strokes, program.parts[0]!, 0, program);
    expect(text.match(/SP\d/g)).toEqual(['SP1', 'SP2', 'SP0']);
    expect(text).not.toMatch(/FS|VS/);
  });

  it('keeps a machine’s own tabs as a line type when it is sent again', () => {
    const { strokes, program } = make(0.5);
    const tabbed = strokes.map((stroke) => ({ ...stroke, ownTabs: { cutLengthMm: 9, tabLengthMm: 1 } }));
    const text = textOf(tabbed, program.parts[0]!, 0, program);
    expect(text.match(/UL1,45\.000,10\.000,45\.000;LT1,10\.0000,1;/g)).toHaveLength(strokes.length);
  });
});
