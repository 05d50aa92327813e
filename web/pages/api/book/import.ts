import { postImport } from '#web/endpoints/book.ts';

export const POST = postImport.serve;
