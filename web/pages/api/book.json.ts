import { getJsonBook } from '#web/endpoints/book.ts';

export const GET = getJsonBook.serve;
