import { ApiRefusal, KeptForLater } from '#web/islands/shared/callApi.ts';
import { say } from '#web/islands/shared/units.ts';

/** Says why something was refused, where it happened. Nothing when there is no error. */
export function Refusal({ error }: { readonly error: unknown }) {
  if (!error) return null;
  const title = error instanceof ApiRefusal ? error.title : 'Something went wrong';
  const message = error instanceof Error ? error.message : String(error);
  return (
    <p role="alert" className="note mt-3" data-tone={error instanceof KeptForLater ? 'warn' : 'problem'}>
      <strong>{title}.</strong> {say(message)}
    </p>
  );
}
