import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { AccountReply, SessionReply, TokenReply } from '#web/schemas/people.ts';

/** Who may sign in, where one is signed in oneself, and what scripts show. */
export function usePeople(first: readonly AccountReply[], firstTokens: readonly TokenReply[]) {
  const [accounts, setAccounts] = useState(first);
  const [tokens, setTokens] = useState(firstTokens);
  const [sessions, setSessions] = useState<readonly SessionReply[] | null>(null);
  const [freshToken, setFreshToken] = useState<string | null>(null);
  const { error, attempt } = useAttempts();
  const readTokens = async () => setTokens(await callApi<readonly TokenReply[]>('/api/tokens'));
  return {
    accounts,
    tokens,
    sessions,
    freshToken,
    error,
    change: (id: number, change: object) =>
      attempt(async () => {
        const changed = await callApi<AccountReply>(`/api/accounts/${id}`, 'PATCH', change);
        setAccounts((all) => all.map((one) => (one.id === id ? changed : one)));
      }),
    readSessions: () =>
      attempt(async () => setSessions(await callApi<readonly SessionReply[]>('/api/sessions'))),
    endHere: () =>
      attempt(async () => {
        await callApi('/api/sessions/current', 'DELETE');
        location.assign('/sign-in');
      }),
    endAll: () =>
      attempt(async () => {
        await callApi('/api/sessions', 'DELETE');
        location.assign('/sign-in');
      }),
    trust: () =>
      attempt(async () => {
        await callApi('/api/trusted-benches', 'POST', {});
        location.reload();
      }),
    distrust: () =>
      attempt(async () => {
        await callApi('/api/trusted-benches', 'DELETE');
        location.reload();
      }),
    makeToken: (name: string, role: string) =>
      attempt(async () => {
        const { token } = await callApi<{ readonly token: string }>('/api/tokens', 'POST', { name, role });
        setFreshToken(token);
        await readTokens();
      }),
    takeBack: (id: number) =>
      attempt(async () => {
        await callApi(`/api/tokens/${id}`, 'DELETE');
        await readTokens();
      }),
  };
}

/** Does something, and keeps why it was refused. */
function useAttempts() {
  const [error, setError] = useState<unknown>(null);
  const attempt = async (act: () => Promise<unknown>): Promise<boolean> => {
    setError(null);
    try {
      await act();
      return true;
    } catch (refusal) {
      setError(refusal);
      return false;
    }
  };
  return { error, attempt };
}
