import type { PointMm } from '#core/geometry/point.ts';
import { placePoint, type CutPass, type CutProgram, type CutStroke } from '#core/program/cutProgram.ts';
import type { Block } from '#core/protocol/machineLanguage.ts';
import type { GcodeOptions } from '#core/protocol/gcode/gcodeOptions.ts';

/**
 * Writes a program as G-code: mm (G21), absolute (G90), feed in mm/min (G94), origin at the lower left of the sheet, y
 * upwards. The tool comes down by a height (Z) or by an S word with M3, which carries the force on the machine's own
 * scale, and goes up by a height or M5.
 *
 * After each lift stands a dwell: a machine takes lines ahead of its motion, and answers a dwell only when all motion
 * before it is over. Its answer is what acknowledges a stroke.
 *
 * Source: Kramer, Proctor and Messina, The NIST RS274NGC Interpreter, Version 3 (NISTIR 6556, 2000): words and modal
 * groups; G4 waits in seconds (3.5.3), M2 ends a program (3.6.1).
 *
 * @returns a block a line
 * @example writeGcode({ passes: [], sheetHeightMm: 297, carries: { force: true, speed: true }, mmPerSPerUnit: 1 }, gcodeOptions.parse({})).length > 0 // true
 */
export function writeGcode(program: CutProgram, options: GcodeOptions): readonly Block[] {
  const blocks: Block[] = [];
  let strokesDone = 0;
  const say = (text: string) => void blocks.push({ text: `${text}\n`, strokesDone });
  const tool = toolWords(options);
  say('G17 G21 G40 G90 G94');
  tool.up.forEach(say);
  let seat = 1;
  let isDown = false;
  let drawn = 0;
  const lift = () => {
    if (!isDown) return;
    tool.up.forEach(say);
    strokesDone = drawn;
    say(`G4 P${plain(options.settleSeconds)}`);
    isDown = false;
  };
  let at: string | null = null;
  for (const pass of program.passes) {
    if (options.changesTools && (pass.seat ?? 1) !== seat) {
      lift();
      seat = pass.seat ?? 1;
      say(`T${seat} M6`);
      at = null;
    }
    const feed = ` F${plain(pass.values.speed * program.mmPerSPerUnit * 60)}`;
    let isFed = false;
    for (const stroke of pass.strokes) {
      const [first = '', ...rest] = stroke.points.map((point) => spot(point, program));
      if (first !== at) {
        lift();
        say(`G0 ${first}`);
      }
      press(say, isDown, stroke, pass, { tool, options, carriesForce: program.carries.force });
      isDown = true;
      for (const point of rest) {
        say(`G1 ${point}${isFed ? '' : feed}`);
        isFed = true;
      }
      at = rest.at(-1) ?? first;
      drawn += 1;
      // A plunge by height has a feed of its own: the next stroke says its feed again.
      if (options.tool === 'height') isFed = false;
    }
  }
  lift();
  say('G0 X0 Y0');
  say('M2');
  return blocks;
}

interface ToolWords {
  readonly up: readonly string[];
  readonly down: (force: number, carriesForce: boolean) => string;
}

function toolWords({ tool, upMm, downMm, plungeMmPerMin }: GcodeOptions): ToolWords {
  if (tool === 'force') {
    return { up: ['M5'], down: (force, carriesForce) => (carriesForce ? `M3 S${plain(force)}` : 'M3') };
  }
  return { up: [`G0 Z${plain(upMm)}`], down: () => `G1 Z${plain(downMm)} F${plain(plungeMmPerMin)}` };
}

interface PressFacts {
  readonly tool: ToolWords;
  readonly options: GcodeOptions;
  readonly carriesForce: boolean;
}

/** Brings the tool down. Where a stroke goes on without a lift it is told again: its force may be another. */
function press(
  say: (text: string) => void,
  isDown: boolean,
  { isTab }: CutStroke,
  { values }: CutPass,
  { tool, options, carriesForce }: PressFacts,
): void {
  const force = isTab ? (values.tabForce ?? values.force) : values.force;
  say(tool.down(force, carriesForce));
  if (!isDown && options.settleSeconds > 0) say(`G4 P${plain(options.settleSeconds)}`);
}

function spot(point: PointMm, program: CutProgram): string {
  const { x, y } = placePoint(point, program);
  return `X${plain(x)} Y${plain(y)}`;
}

/** At most three decimals, none where they are zero. */
function plain(value: number): string {
  const rounded = Number(value.toFixed(3));
  return String(rounded === 0 ? 0 : rounded);
}
