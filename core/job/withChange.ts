/** What a change can be made to: a job, or its head. */
interface Changeable {
  readonly moreDrawings?: readonly { readonly number: number }[] | undefined;
}

/** Fields that are changed, and changes of further drawings by their numbers; what is undefined stays. */
type ChangeOf<Job extends Changeable> = {
  readonly [Field in keyof Omit<Job, 'moreDrawings'>]?: Job[Field] | undefined;
} & {
  readonly moreDrawings?: readonly ({ readonly number: number } & object)[] | undefined;
};

/**
 * A job as a change leaves it.
 *
 * @example withChange({ name: 'Fox' }, { name: 'Owl' }).name // 'Owl'
 */
export function withChange<Job extends Changeable>(
  job: Job,
  { moreDrawings: changes = [], ...change }: ChangeOf<Job>,
): Job {
  const next = { ...job, ...said(change) };
  if (!job.moreDrawings) return next;
  const moreDrawings = job.moreDrawings.map((one) => ({
    ...one,
    ...said(changes.find(({ number }) => number === one.number) ?? {}),
  }));
  return { ...next, moreDrawings };
}

function said<Fields extends object>(fields: Fields): Partial<Fields> {
  const given = Object.entries(fields).filter(([, value]) => value !== undefined);
  return Object.fromEntries(given) as Partial<Fields>;
}
