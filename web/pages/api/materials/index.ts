import { getMaterials, postMaterial } from '#web/endpoints/materials.ts';

export const GET = getMaterials.serve;
export const POST = postMaterial.serve;
