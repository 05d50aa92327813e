import { gcode } from '#core/protocol/gcode/gcode.ts';
import { hpgl } from '#core/protocol/hpgl/hpgl.ts';
import type { MachineLanguage } from '#core/protocol/machineLanguage.ts';

/** Every language a machine may speak; the first is that of a machine that does not say. A new one is a line here. */
export const LANGUAGES: readonly MachineLanguage[] = [hpgl, gcode];
