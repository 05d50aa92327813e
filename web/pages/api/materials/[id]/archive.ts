import { postMaterialArchive } from '#web/endpoints/materials.ts';

export const POST = postMaterialArchive.serve;
