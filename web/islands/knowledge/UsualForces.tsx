import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { KnowledgeReply, UsualForceReply } from '#web/schemas/knowledge.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly usualForces: readonly UsualForceReply[];
  readonly onChanged: (reply: KnowledgeReply) => void;
}

/** What each family of sheets usually takes here: where a search of a new sheet begins. */
export function UsualForces({ usualForces, onChanged }: Props) {
  const own = usualForces.filter(({ author }) => author).length;
  return (
    <details className="sheet p-4 sm:p-5">
      <summary className="cursor-pointer font-semibold min-h-8">
        Usual forces ({own} of {usualForces.length} are your own)
      </summary>
      <p className="text-sm text-muted mt-1">
        A kiss in gf, or what parts a single layer: fresh blade, one pass, {say('100 mm/s')}. A search of a
        new sheet begins from here; what you cut teaches the rest.
      </p>
      <ul className="grid sm:grid-cols-2 gap-x-6 gap-y-2 mt-2">
        {usualForces.map((usual) => (
          <UsualForce key={`${usual.family}/${usual.usualGf}`} usual={usual} onChanged={onChanged} />
        ))}
      </ul>
    </details>
  );
}

function UsualForce({ usual, onChanged }: { readonly usual: UsualForceReply } & Pick<Props, 'onChanged'>) {
  const { family, name, usualGf, commonGf, author } = usual;
  const [text, setText] = useState(String(Number(usualGf.toFixed(1))));
  const path = `/api/knowledge/usual-forces/${family}`;
  const save = useMutation({
    mutationFn: () => callApi<KnowledgeReply>(path, 'PUT', { usualGf: Number(text) }),
    onSuccess: onChanged,
  });
  const drop = useMutation({
    mutationFn: () => callApi<KnowledgeReply>(path, 'DELETE'),
    onSuccess: onChanged,
  });
  const isChanged = Number(text) !== Number(usualGf.toFixed(1));
  return (
    <li>
      <form
        className="flex flex-wrap items-center gap-x-3 gap-y-1"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <label className="flex items-center gap-2 grow justify-between">
          <span>
            {name}
            <WhoseOwn author={author} commonGf={commonGf} />
          </span>
          <span className="flex items-center gap-1">
            <input
              className="field w-20 text-right"
              inputMode="decimal"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
            gf
          </span>
        </label>
        {isChanged ? (
          <button type="submit" className="button px-3" data-kind="main" disabled={save.isPending}>
            Keep
          </button>
        ) : null}
        {author && !isChanged ? (
          <button
            type="button"
            className="button px-3"
            disabled={drop.isPending}
            onClick={() => drop.mutate()}
          >
            Back to {commonGf}
          </button>
        ) : null}
      </form>
      <Refusal error={save.error ?? drop.error} />
    </li>
  );
}

function WhoseOwn({ author, commonGf }: Pick<UsualForceReply, 'author' | 'commonGf'>) {
  if (!author) return null;
  return (
    <span className="block text-sm text-muted">
      {author}&apos;s own; commonly {commonGf} gf
    </span>
  );
}
