import { getImport, postImport } from '#web/endpoints/book.ts';

export const GET = getImport.serve;
export const POST = postImport.serve;
