import { z } from 'zod';

/** What can be made to go wrong on a stand-in. */
export const FAULTS = [
  'linkLost',
  'slowLink',
  'halfCommand',
  'marksNotRead',
  'jam',
  'panelStop',
  'powerLoss',
  'skewedSheet',
  'roomLight',
  'strayInk',
  'liftedMat',
] as const;
export type Fault = (typeof FAULTS)[number];

/** Faults that the sensor meets when it looks for printed marks. */
export const SENSE_FAULTS = ['skewedSheet', 'roomLight', 'strayInk', 'liftedMat'] as const;
export type SenseFault = (typeof SENSE_FAULTS)[number];

/** A fault that waits for its moment. */
export const faultSchema = z.object({
  fault: z.enum(FAULTS),
  /** It strikes when so many strokes of a job are cut. */
  afterStrokes: z.number().int().min(0).default(0),
});
export type ArmedFault = z.infer<typeof faultSchema>;

/** What each looks like from the bench. */
export const FAULT_WORDS: Readonly<Record<Fault, string>> = {
  linkLost: 'the link breaks in the middle of a path; what arrived is still cut',
  slowLink: 'reports arrive late',
  halfCommand: 'the link breaks in the middle of a command',
  marksNotRead: 'the sensor does not find the marks',
  jam: 'a loose piece catches under the blade',
  panelStop: 'somebody presses stop at the panel',
  powerLoss: 'the power fails: the cutter forgets its job, the sheet stays',
  skewedSheet: 'the next printed sheet is put in askew',
  roomLight: 'light from the room falls on the marks',
  strayInk: 'a pen left its mark beside a printed one',
  liftedMat: 'the mat lifts at one corner',
};

/** Faults that are armed, each striking once. */
export class FaultBox {
  private armed: readonly ArmedFault[] = [];

  arm(fault: ArmedFault): void {
    this.armed = [...this.armed, fault];
  }

  clear(): void {
    this.armed = [];
  }

  list(): readonly ArmedFault[] {
    return this.armed;
  }

  /** All faults of the sensor; they are disarmed. */
  takeSense(): readonly SenseFault[] {
    const isSense = (fault: Fault): fault is SenseFault => (SENSE_FAULTS as readonly Fault[]).includes(fault);
    const found = this.armed.map(({ fault }) => fault).filter(isSense);
    this.armed = this.armed.filter(({ fault }) => !isSense(fault));
    return found;
  }

  /** The fault of a kind that is due once so many strokes are cut; it is disarmed. */
  take(kinds: readonly Fault[], strokes: number): Fault | null {
    const due = this.armed.find(
      ({ fault, afterStrokes }) => kinds.includes(fault) && strokes >= afterStrokes,
    );
    if (!due) return null;
    this.armed = this.armed.filter((one) => one !== due);
    return due.fault;
  }
}
