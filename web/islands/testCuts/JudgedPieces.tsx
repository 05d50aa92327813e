import { QueryClientProvider, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { nameCondition } from '#core/stack/material.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit, sayForce } from '#core/units/forceScale.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { ChanceCurve } from '#web/islands/testCuts/ChanceCurve.tsx';
import { GivenFields } from '#web/islands/testCuts/start/GivenFields.tsx';
import { CutPiece } from '#web/islands/testCuts/onMachine/CutPiece.tsx';
import { describePiece, PieceFiles, PieceSize, USUAL_SIZE } from '#web/islands/testCuts/start/PieceSize.tsx';
import { QuantityTabs, type TestQuantity } from '#web/islands/testCuts/QuantityTabs.tsx';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';
import { lengthUnit, say } from '#web/islands/shared/units.ts';

interface Props {
  readonly station: Station;
  readonly quantities: readonly TestQuantity[];
  readonly initial: JudgedReply;
}

/** Evidence tab lengths or a crease force by how whole pieces behaved. */
export function JudgedPieces(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <JudgedView {...props} />
    </QueryClientProvider>
  );
}

function JudgedView({ station, quantities, initial }: Props) {
  const { machine, loaded } = station;
  const judged = useJudged(machine.id, initial);
  const { data, given, setGiven } = judged;
  const unit = forceUnit(machine.forceScale);
  const isTabs = data.quantity === 'tabs';
  const [size, setSize] = useState(USUAL_SIZE);
  const { asked, made } = describePiece(given, size);
  const sheetWords = loaded ? nameCondition(loaded.material.name, loaded.condition.kind) : '';
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <section aria-label="Judged pieces" className="sheet p-4 sm:px-6 sm:py-4">
        <div className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
          <h1>{isTabs ? 'Tabs' : 'Crease'}</h1>
          <QuantityTabs quantities={quantities} now={isTabs ? 'perforated' : 'crease'} />
        </div>
        <p className="text-muted">
          {sheetWords} on {machine.name}
        </p>
        <p className="mt-3 max-w-[42rem]">{isTabs ? TAB_ADVICE : CREASE_ADVICE}</p>
        <div className="border-y border-hairline mt-3 py-3 flex flex-wrap items-end gap-5">
          <GivenFields given={given} unit={unit} onChange={setGiven} />
          <p className="grow basis-48">
            {data.pieces.length === 0 ? 'A usual start. ' : ''}Best to try:{' '}
            <strong>{wordGiven(data.proposal, unit)}</strong>, right {inHundred(data)} times in 100 by what is
            known.
          </p>
        </div>
        <PieceSize quantity={data.quantity} size={size} onChange={setSize}>
          <PieceFiles machineId={machine.id} quantity={data.quantity} asked={asked} />
        </PieceSize>
        <CutPiece
          machine={machine}
          quantity={data.quantity}
          asked={asked}
          words={isTabs ? 'the piece' : `at ${wordGiven(given, unit)}`}
          isBusy={judged.isBusy}
        />
        <ChanceCurve
          curve={data.curve}
          at={valueOf(given)}
          steps={data.steps}
          unit={isTabs ? `${lengthUnit()} tab` : unit}
        />
        <Steps judged={judged} made={made} question={isTabs ? 'How did it hold?' : 'How did it fold?'} />
        <Refusal error={judged.error} />
      </section>
      <div className="grid gap-5 content-start">
        <KeepJudged judged={judged} unit={unit} />
        <PieceList judged={judged} unit={unit} />
      </div>
    </div>
  );
}

const TAB_ADVICE =
  'A test square does not tell how a piece will hold: cut one real piece, run it, push it out. Change the tab or the cut length, never the force along the tabs.';
const CREASE_ADVICE = 'Press one line, fold it once, look at the outside of the fold.';

type Judged = ReturnType<typeof useJudged>;

function inHundred({ chances }: JudgedReply): number {
  return Math.round((chances[2] ?? 0) * 100);
}

interface StepsProps {
  readonly judged: Judged;
  /** What the piece was made with, and how large it is. */
  readonly made: Given;
  readonly question: string;
}

function Steps({ judged, made, question }: StepsProps) {
  const { data, record, isBusy } = judged;
  return (
    <fieldset className="mt-2" disabled={isBusy}>
      <legend className="font-semibold">{question} One tap records it.</legend>
      <div className="grid grid-cols-2 sm:grid-cols-5 gap-1.5 mt-1.5">
        {data.steps.map((step, seen) => (
          <button
            key={step}
            type="button"
            className={`sheet border-edge hover:border-ink min-h-16 px-2 cursor-pointer font-semibold ${seen === 2 ? 'border-verdigris border-2' : ''}`}
            onClick={() => record({ given: made, seen })}
          >
            {step}
          </button>
        ))}
      </div>
    </fieldset>
  );
}

interface SideProps {
  readonly judged: Judged;
  readonly unit: string;
}

/** A proposal worth keeping is right at least this often. */
const WORTH_KEEPING = 70;

function KeepJudged({ judged: { data, keep, isBusy }, unit }: SideProps) {
  const isTabs = data.quantity === 'tabs';
  return (
    <section aria-label="Keep" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Best so far</h2>
      <p className="figure text-[1.25rem] font-bold leading-tight mt-1">{wordGiven(data.proposal, unit)}</p>
      <p>
        right <strong>{inHundred(data)} times in 100</strong>
      </p>
      {isTabs && data.kissForce !== null ? (
        <p className="text-sm text-muted">
          along the tabs: {sayForce(data.kissForce ?? '', unit)}, the kiss force
        </p>
      ) : null}
      {data.pieces.length > 0 ? (
        <button
          type="button"
          data-keys="k"
          className="button mt-3 w-full"
          data-kind={inHundred(data) >= WORTH_KEEPING ? 'main' : undefined}
          disabled={isBusy}
          onClick={() => keep(data.proposal)}
        >
          Keep {wordGiven(data.proposal, unit)}
        </button>
      ) : (
        <p className="note mt-3" data-tone="careful">
          Only a usual start. It asks for a real piece before it can be kept.
        </p>
      )}
      {data.revision > 0 ? (
        <p className="note mt-3" role="status">
          Kept as revision {data.revision}. <a href={`/settings/${data.settingId ?? 0}`}>See the setting</a>
        </p>
      ) : null}
    </section>
  );
}

function PieceList({ judged: { data, undo, isBusy }, unit }: SideProps) {
  return (
    <section aria-label="Pieces so far" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Pieces so far</h2>
      {data.pieces.length === 0 ? <p>None yet on this sheet.</p> : null}
      <ol className="divide-y divide-hairline">
        {[...data.pieces].reverse().map((piece) => (
          <li key={piece.id} className="flex items-center gap-3 py-1">
            <span className="grow">
              {wordGiven(piece.given, unit)}: <strong>{data.steps[piece.seen]}</strong>
              <span className="block text-sm text-muted">
                {piece.author} · {formatMoment(piece.at)}
              </span>
            </span>
            <button
              type="button"
              className="button px-3"
              data-kind="quiet"
              disabled={isBusy}
              onClick={() => undo(piece.id)}
              aria-label={`Take back ${wordGiven(piece.given, unit)}`}
            >
              Take back
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

type Given = JudgedReply['proposal'];

function wordGiven(given: Given, unit: string): string {
  return 'tabLengthMm' in given
    ? say(`${given.tabLengthMm} mm tab / ${given.cutLengthMm} mm cut`)
    : `${sayForce(given.force, unit)}${given.passes > 1 ? `, ${given.passes} passes` : ''}`;
}

function valueOf(given: Given): number {
  return 'tabLengthMm' in given ? given.tabLengthMm : given.force;
}

function useJudged(machineId: number, initial: JudgedReply) {
  const queries = useQueryClient();
  const path = `/api/stations/${machineId}/judged/${initial.quantity}`;
  const key = ['judged', path];
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => callApi<JudgedReply>(path),
    initialData: initial,
    refetchInterval: 5000,
  });
  const [own, setOwn] = useState<Given | null>(null);
  const show = (reply: JudgedReply) => {
    queries.setQueryData(key, reply);
    setOwn(null);
  };
  const record = useMutation({
    mutationFn: (piece: { readonly given: Given; readonly seen: number }) =>
      callApi<JudgedReply>(path, 'POST', piece),
    onSuccess: show,
  });
  const undo = useMutation({
    mutationFn: (id: number) => callApi(`/api/judged-pieces/${id}`, 'DELETE'),
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  });
  const keep = useMutation({
    mutationFn: (given: Given) =>
      callApi<JudgedReply>(`${path}/keep`, 'POST', { given, basedOn: data.revision }),
    onSuccess: show,
    onError: () => void queries.invalidateQueries({ queryKey: key }),
  });
  return {
    data,
    given: own ?? data.proposal,
    setGiven: setOwn,
    record: record.mutate,
    undo: undo.mutate,
    keep: keep.mutate,
    isBusy: record.isPending || undo.isPending || keep.isPending,
    error: record.error ?? undo.error ?? keep.error,
  };
}
