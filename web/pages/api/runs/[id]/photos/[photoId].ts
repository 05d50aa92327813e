import { getRunPhoto } from '#web/endpoints/runPhotos.ts';

export const GET = getRunPhoto.serve;
