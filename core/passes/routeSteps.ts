import { CUT_ROLES, type CutRole } from '#core/drawing/roles/lineRoles.ts';

/** What a sheet goes through at the machines, beside being loaded and unloaded. */
export const ROUTE_STEPS = ['print', ...CUT_ROLES] as const;
export type RouteStep = (typeof ROUTE_STEPS)[number];

/** A way through the steps that workshops use, with the reason for it. */
export interface PassRoute {
  readonly name: string;
  readonly why: string;
  readonly steps: readonly RouteStep[];
  /** It prints between passes: the machine must print as well. */
  readonly needsPrinter: boolean;
}

/** The routes that are offered. The first is the usual one. */
export const PASS_ROUTES: readonly [PassRoute, ...PassRoute[]] = [
  {
    name: 'Print first',
    why: 'pressed lines and cut edges never meet the rollers of a printer',
    steps: ROUTE_STEPS,
    needsPrinter: false,
  },
  {
    name: 'Crease first',
    why: 'the fold is pressed into bare card, and the ink over it stays whole',
    steps: ['crease', 'print', 'score', 'kiss', 'slit', 'perforated', 'through'],
    needsPrinter: true,
  },
];

/** A rule of the order: what must come before what, and why. */
interface StepRule {
  readonly first: RouteStep;
  readonly then: RouteStep;
  readonly why: string;
  /** A machine that prints as well is free of it. */
  readonly isForOtherPrinter?: true;
}

const PRINTED: readonly StepRule[] = (['score', 'kiss', 'slit', 'perforated', 'through'] as const).map(
  (then) => ({ first: 'print', then, why: 'cut edges lift under the rollers of a printer' }),
);

const RULES: readonly StepRule[] = [
  {
    first: 'print',
    then: 'crease',
    why: 'a creased sheet does not run through another printer; only a machine that prints as well may crease first',
    isForOtherPrinter: true,
  },
  ...PRINTED,
  { first: 'crease', then: 'kiss', why: 'a crease presses the sheet: cut edges beside it would lift' },
  { first: 'crease', then: 'slit', why: 'a crease presses the sheet: cut edges beside it would lift' },
  { first: 'crease', then: 'perforated', why: 'a freed piece moves under the crease tool' },
  { first: 'crease', then: 'through', why: 'a freed piece moves under the crease tool' },
  { first: 'score', then: 'slit', why: 'a slit lets the sheet spread under the blade' },
  { first: 'score', then: 'perforated', why: 'a piece that is nearly free shifts under the blade' },
  { first: 'score', then: 'through', why: 'a piece that is free cannot be scored' },
  { first: 'kiss', then: 'slit', why: 'a slit lets the sheet spread under the blade' },
  { first: 'kiss', then: 'perforated', why: 'a piece that is nearly free shifts under the blade' },
  { first: 'kiss', then: 'through', why: 'a piece that is free cannot be kissed' },
  { first: 'slit', then: 'perforated', why: 'the piece is freed last' },
  { first: 'slit', then: 'through', why: 'the piece is freed last' },
  { first: 'perforated', then: 'through', why: 'tabs still hold while the rest is cut' },
];

/**
 * The steps of a job in their order, and where an order chosen by hand breaks a rule.
 *
 * @param wanted by hand, or `null`; steps it does not name follow in the usual order, but print comes first
 * @param hasPrinter the cutting machine prints as well
 * @example orderSteps(['through', 'kiss'], null, false).steps // ['kiss', 'through']
 */
export function orderSteps(
  present: readonly RouteStep[],
  wanted: readonly RouteStep[] | null,
  hasPrinter: boolean,
): { readonly steps: readonly RouteStep[]; readonly violations: readonly string[] } {
  const usual = ROUTE_STEPS.filter((step) => present.includes(step));
  if (!wanted) return { steps: usual, violations: [] };
  const named = wanted.filter((step, index) => present.includes(step) && wanted.indexOf(step) === index);
  const missing = usual.filter((step) => !named.includes(step));
  const steps = [
    ...missing.filter((step) => step === 'print'),
    ...named,
    ...missing.filter((step) => step !== 'print'),
  ];
  const violations = RULES.filter(
    ({ first, then, isForOtherPrinter }) =>
      !(isForOtherPrinter && hasPrinter) &&
      steps.includes(first) &&
      steps.includes(then) &&
      steps.indexOf(first) > steps.indexOf(then),
  ).map(({ first, then, why }) => `${then} before ${first}: ${why}`);
  return { steps, violations };
}

/**
 * Whether a step is done by the cutting machine's tools.
 *
 * @example isPassStep('print') // false
 */
export function isPassStep(step: RouteStep): step is CutRole {
  return step !== 'print';
}
