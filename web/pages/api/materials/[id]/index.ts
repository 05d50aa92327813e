import { getMaterial, putMaterial } from '#web/endpoints/materials.ts';

export const GET = getMaterial.serve;
export const PUT = putMaterial.serve;
