import { getBookSchema } from '#web/endpoints/book.ts';

export const GET = getBookSchema.serve;
