import { getCsvBook } from '#web/endpoints/book.ts';

export const GET = getCsvBook.serve;
