import type { ReactNode } from 'react';
import { Hint } from '#web/islands/shared/Term.tsx';

interface Props {
  readonly id: string;
  readonly label: string;
  readonly problem?: string | undefined;
  /** Whether nothing is kept without it. */
  readonly isRequired?: boolean;
  readonly children: ReactNode;
}

/** A labelled field with its problem below it, tied together for screen readers. */
export function FormField({ id, label, problem, isRequired = false, children }: Props) {
  return (
    <div>
      <div className="flex justify-between gap-2 text-sm text-muted">
        <span className="flex gap-1">
          <label htmlFor={id}>{label}</label>
          <Hint label={label} />
        </span>
        {isRequired ? <span aria-hidden>required</span> : null}
      </div>
      {children}
      {problem ? (
        <p id={`${id}-problem`} className="text-ember text-sm mt-0.5">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

/** What a field needs to be tied to its problem. */
export function fieldProps(id: string, problem: string | undefined) {
  return {
    id,
    className: 'field',
    'aria-invalid': Boolean(problem),
    'aria-describedby': problem ? `${id}-problem` : undefined,
  };
}
