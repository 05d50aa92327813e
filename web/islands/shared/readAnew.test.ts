import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { expect, it } from 'vitest';
import { readAnew } from '#web/islands/shared/readAnew.ts';

it('drops a first answer that was asked before the change, and asks again', async () => {
  const queries = new QueryClient();
  const answers: ((value: string) => void)[] = [];
  const observer = new QueryObserver(queries, {
    queryKey: ['run'],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
  });
  const leave = observer.subscribe(() => undefined);
  // The first answer is still on its way when the change is made.
  const read = readAnew(queries);
  await new Promise((resolve) => setTimeout(resolve, 0));
  answers[0]!('before');
  expect(answers).toHaveLength(2);
  answers[1]!('after');
  await read;
  expect(observer.getCurrentResult().data).toBe('after');
  leave();
});
