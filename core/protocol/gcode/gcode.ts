import { characterOf, gcodeOptions } from '#core/protocol/gcode/gcodeOptions.ts';
import { hearGcode } from '#core/protocol/gcode/hearGcode.ts';
import { writeGcode } from '#core/protocol/gcode/writeGcode.ts';
import { defineLanguage } from '#core/protocol/machineLanguage.ts';

/** G-code (RS-274), for flatbed drag knives and home-built machines: a line at a time, each answered. */
export const gcode = defineLanguage({
  id: 'gcode',
  name: 'G-code',
  about: 'Flatbed drag knives and home-built machines. They answer every line, pause and stop from here.',
  file: { type: 'text/x-gcode', ending: 'gcode' },
  options: gcodeOptions,
  abilities: ({ tool, changesTools, pause, stop }) => ({
    force: tool === 'force',
    speed: 'always',
    tabs: tool === 'force' ? ['force', 'lift'] : ['lift'],
    seats: changesTools,
    numberedCuts: false,
    pause: pause !== '',
    stop: stop !== '',
    report: true,
  }),
  write: writeGcode,
  flow: ({ pause, resume, stop, ask }) => ({
    kind: 'answered',
    hear: hearGcode,
    pause: characterOf(pause),
    resume: characterOf(resume),
    stop: characterOf(stop),
    ask: characterOf(ask),
  }),
  nudge: () => ['G21 G91', 'G0 X10', 'G0 X-10', 'G90'].map((line) => ({ text: `${line}\n`, strokesDone: 0 })),
});
