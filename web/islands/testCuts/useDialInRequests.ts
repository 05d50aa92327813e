import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { GivenGrades } from '#web/islands/testCuts/start/givenGrades.ts';
import type { Flaw } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { callApi, KeptForLater } from '#web/islands/shared/callApi.ts';
import { readAnew } from '#web/islands/shared/readAnew.ts';
import type { DialInStart } from '#web/islands/testCuts/start/dialInStart.ts';
import { useTopic } from '#web/islands/together/useTopic.ts';
import { useLocalAnswer } from '#web/islands/testCuts/useLocalAnswer.ts';
import { previewGrades } from '#web/islands/testCuts/previewGrades.ts';
import type { DialInReply, KeptReply } from '#web/schemas/dialIn.ts';

/** What may be changed on a dial-in from its page. */
export interface GivenChange {
  readonly passes?: number;
  readonly speed?: number;
  readonly exposureMm?: number;
  readonly scrap?: { readonly widthMm?: number; readonly heightMm?: number; readonly piece?: string };
  readonly isScrapNew?: boolean;
  readonly jobId?: number;
  readonly spotJobId?: number;
}

/** Somebody else may grade too: what stands is read again this often while changes are not told. */
const LOOK_AGAIN_MS = 4000;

/** The dial-in of a page and everything that can be asked of it. It is opened by the first thing that is recorded. */
export function useDialInRequests(station: Station, operation: DepthOperation, start: DialInStart) {
  const { machine, loaded } = station;
  const queries = useQueryClient();
  const key = ['dialIn', machine.id, loaded?.condition.id, operation];
  const lookAgain = () => void queries.invalidateQueries({ queryKey: key });
  const dialInId = queries.getQueryData<DialInStart>(key)?.reply?.dialIn.id ?? start.reply?.dialIn.id;
  const together = useTopic(
    dialInId === undefined ? `stations/${machine.id}` : `dial-ins/${dialInId}`,
    lookAgain,
  );
  const { data = start, error } = useQuery({
    queryKey: key,
    queryFn: () => readAgain(queries.getQueryData<DialInStart>(key) ?? start, station, operation),
    initialData: start,
    refetchInterval: ({ state }) => (state.data?.reply && !together.isTold ? LOOK_AGAIN_MS : false),
  });
  const show = (reply: DialInReply) => queries.setQueryData<DialInStart>(key, { reply, bench: reply.bench });
  const open = async (): Promise<DialInReply> => {
    const now = queries.getQueryData<DialInStart>(key)?.reply;
    if (now?.dialIn.state === 'open') return now;
    const { passes } = data.bench.answer?.values ?? { passes: 1 };
    const opened = await openAt({ machineId: machine.id, operation, passes });
    show(opened);
    return opened;
  };
  const preview = useGradePreview(station, operation, key);
  const grade = useMutation({
    mutationFn: async (given: GivenGrades) => ask(await open(), '/grades', 'POST', given),
    onMutate: preview,
    onSuccess: show,
    onError: (problem, __, before) => {
      // What it leaves stays on the screen: it is sent when the network is back.
      if (problem instanceof KeptForLater) return;
      if (before) queries.setQueryData(key, before);
      lookAgain();
    },
  });
  const simple = { onSuccess: show, onError: lookAgain };
  const { undo, sayFlaws } = useLastGrade(open, simple);
  const change = useMutation({
    mutationFn: async (wanted: GivenChange) => {
      const opened = await open();
      return ask(opened, '', 'PATCH', { ...wanted, version: opened.dialIn.version });
    },
    ...simple,
  });
  const { card, dropCard } = useCards(open, simple);
  const cutOnMachine = useCutOnMachine(open);
  const keep = useKeep(open, show, start.bench.revision?.revision ?? 0);
  const requests = { grade, undo, sayFlaws, change, card, dropCard, keep };
  return {
    bench: data.bench,
    dialIn: data.reply?.dialIn ?? null,
    isLoaded: data.reply?.isLoaded ?? true,
    requests,
    cutOnMachine,
    together,
    // A piece that is being sent can not be graded yet: what is seen is still the one before.
    isBusy: [...Object.values(requests), cutOnMachine].some(({ isPending }) => isPending),
    error: [grade, undo, sayFlaws, change, card, dropCard].find((one) => one.error)?.error ?? error,
  };
}

/** Cuts a piece at a force, or the card that waits, on the machine. Pressed again after a lost answer, it is one run. */
function useCutOnMachine(open: () => Promise<DialInReply>) {
  const queries = useQueryClient();
  const asked = useRef<{ readonly force: number | undefined; readonly requestKey: string } | null>(null);
  return useMutation({
    mutationFn: async (force: number | undefined) => {
      if (asked.current?.force !== force) asked.current = null;
      asked.current ??= { force, requestKey: crypto.randomUUID() };
      const { dialIn } = await open();
      return callApi<{ id: number }>(`/api/dial-ins/${dialIn.id}/runs`, 'POST', asked.current);
    },
    onSuccess: () => {
      asked.current = null;
      return readAnew(queries);
    },
  });
}

interface Handlers {
  readonly onSuccess: (reply: DialInReply) => void;
  readonly onError: () => void;
}

/** Taking the last grade back, and saying what flaws it left. */
function useLastGrade(open: () => Promise<DialInReply>, handlers: Handlers) {
  const undo = useMutation({
    mutationFn: async () => ask(await open(), '/grades/last', 'DELETE'),
    ...handlers,
  });
  const sayFlaws = useMutation({
    mutationFn: async (seen: { readonly cutId: number; readonly flaws: readonly Flaw[] }) =>
      ask(await open(), '/grades/last', 'PATCH', seen),
    ...handlers,
  });
  return { undo, sayFlaws };
}

/** Laying a card on the scrap, and putting it away. */
function useCards(open: () => Promise<DialInReply>, handlers: Handlers) {
  const card = useMutation({
    mutationFn: async () => {
      const opened = await open();
      return ask(opened, '/cards', 'POST', { version: opened.dialIn.version });
    },
    ...handlers,
  });
  const dropCard = useMutation({
    mutationFn: async () => {
      const opened = await open();
      return ask(opened, `/cards/${opened.dialIn.card?.load ?? 0}`, 'DELETE');
    },
    ...handlers,
  });
  return { card, dropCard };
}

function openAt(facts: { machineId: number; operation: DepthOperation; passes: number }) {
  return callApi<DialInReply>('/api/dial-ins', 'POST', facts);
}

/** Asks one thing of an opened dial-in. */
function ask(opened: DialInReply, path: string, method: string, body?: unknown): Promise<DialInReply> {
  return callApi<DialInReply>(`/api/dial-ins/${opened.dialIn.id}${path}`, method, body);
}

/**
 * Keeps what was found, based on the revision that stood when the page was opened, kept from here, or was last refused
 * over: what somebody else kept meanwhile may have come onto the screen unnoticed, and is never overrun in silence.
 */
function useKeep(open: () => Promise<DialInReply>, show: (reply: DialInReply) => void, revisionSeen: number) {
  const seen = useRef(revisionSeen);
  return useMutation({
    mutationFn: async (wanted: { readonly force: number; readonly reason: string }) => {
      const { dialIn } = await open();
      const path = `/api/dial-ins/${dialIn.id}`;
      const body = { ...wanted, basedOn: seen.current };
      const lookAgain = async () => {
        const now = await callApi<DialInReply>(path);
        seen.current = now.bench.revision?.revision ?? 0;
        show(now);
      };
      return callApi<KeptReply>(`${path}/keep`, 'POST', body).finally(lookAgain);
    },
  });
}

/** Shows what a grade leaves at once, while the server still records it; returns what stood before, to go back to. */
function useGradePreview(station: Station, operation: DepthOperation, key: readonly unknown[]) {
  const queries = useQueryClient();
  const answerHere = useLocalAnswer();
  return async (given: GivenGrades) => {
    await queries.cancelQueries({ queryKey: key });
    const before = queries.getQueryData<DialInStart>(key);
    const order = before && previewGrades(station, operation, before, given);
    if (order) {
      void answerHere(order).then((answer) => {
        if (!answer || queries.getQueryData<DialInStart>(key) !== before) return;
        const bench = { ...before.bench, answer, cuts: [...order.cuts] };
        queries.setQueryData<DialInStart>(key, { ...before, bench });
      });
    }
    return before;
  };
}

/** What stands now; where nothing was open, somebody else may have opened it meanwhile. */
async function readAgain(
  now: DialInStart,
  { machine, loaded }: Station,
  operation: DepthOperation,
): Promise<DialInStart> {
  const id = now.reply?.dialIn.id ?? (await findOpened(machine.id, loaded?.condition.id, operation));
  if (id === undefined) return now;
  const reply = await callApi<DialInReply>(`/api/dial-ins/${id}`);
  return { reply, bench: reply.bench };
}

async function findOpened(
  machineId: number,
  conditionId: number | undefined,
  operation: DepthOperation,
): Promise<number | undefined> {
  const open = await callApi<readonly DialInReply['dialIn'][]>(`/api/dial-ins?machineId=${machineId}`);
  return open.find((one) => one.conditionId === conditionId && one.operation === operation)?.id;
}
