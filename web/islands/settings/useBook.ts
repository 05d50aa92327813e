import { useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { BookPage, BulkInput, BulkReply } from '#web/schemas/setting.ts';

/** What the book is narrowed to. Empty texts narrow nothing. */
export interface BookFilter {
  readonly text: string;
  readonly state: string;
  readonly operation: string;
  readonly machineId: string;
  readonly isArchived: boolean;
}

const EVERYTHING: BookFilter = { text: '', state: '', operation: '', machineId: '', isArchived: false };

/** The book in pages, what is chosen in it, and changes of many settings at once. */
export function useBook(first: BookPage, text: string) {
  const [filter, setFilter] = useState({ ...EVERYTHING, text });
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const queries = useQueryClient();
  const isFirst = filter === EVERYTHING || (isEverything(filter) && filter.text === text);
  const pages = useInfiniteQuery({
    queryKey: ['book', filter],
    queryFn: ({ pageParam }) => callApi<BookPage>(`/api/settings?${queryOf(filter, pageParam)}`),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
    ...(isFirst ? { initialData: { pages: [first], pageParams: [''] } } : {}),
  });
  const bulk = useMutation({
    mutationFn: (change: BulkInput) => callApi<BulkReply>('/api/settings/bulk', 'POST', change),
    onSettled: () => queries.invalidateQueries({ queryKey: ['book'] }),
  });
  const settings = pages.data?.pages.flatMap((page) => page.settings) ?? [];
  return {
    filter,
    narrow: (change: Partial<BookFilter>) => setFilter({ ...filter, ...change }),
    settings,
    total: pages.data?.pages[0]?.total ?? 0,
    hasMore: pages.hasNextPage,
    isReading: pages.isFetching,
    readMore: () => void pages.fetchNextPage(),
    error: pages.error ?? bulk.error,
    chosen,
    choose: (id: number) => {
      const next = new Set(chosen);
      if (!next.delete(id)) next.add(id);
      setChosen(next);
    },
    chooseNone: () => setChosen(new Set()),
    bulk,
  };
}

export type Book = ReturnType<typeof useBook>;

function isEverything({ state, operation, machineId, isArchived }: BookFilter): boolean {
  return state === '' && operation === '' && machineId === '' && !isArchived;
}

function queryOf({ isArchived, ...filter }: BookFilter, after: string): URLSearchParams {
  const named = Object.entries({ ...filter, after }).filter(([, value]) => value !== '');
  return new URLSearchParams([...named, ['isArchived', String(isArchived)]]);
}
