import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

/** Only for tests: a job of one kiss line. */
export function smallJob(conditionId: number, machineId: number) {
  const source = '<svg viewBox="0 0 9 9"><path d="M0 0H9"/></svg>';
  const design = sampleDesign(source, { '|#000000': 'kiss' }, { xMm: 5, yMm: 5 });
  return { name: 'Gulls', ...design, areRolesGuessed: false, passes: PLAIN_CHOICES, conditionId, machineId };
}
