import { getRunPhotos, postRunPhoto } from '#web/endpoints/runPhotos.ts';

export const GET = getRunPhotos.serve;
export const POST = postRunPhoto.serve;
