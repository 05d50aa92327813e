interface Props {
  readonly isBusy: boolean;
  /** Nothing can be made yet. */
  readonly isOff: boolean;
  readonly onMake: () => void;
  readonly onPutAway: () => void;
}

/** The end of preparing artwork: a job, or nothing. */
export function MakeOrPutAway({ isBusy, isOff, onMake, onPutAway }: Props) {
  return (
    <div className="flex flex-wrap gap-3">
      <button type="button" className="button" data-kind="main" disabled={isBusy || isOff} onClick={onMake}>
        {isBusy ? 'Making the job …' : 'Make the job'}
      </button>
      <button type="button" className="button" data-kind="quiet" onClick={onPutAway}>
        Put it away
      </button>
    </div>
  );
}
