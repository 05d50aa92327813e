const SCHEME = 'picture:';

/** Where a kept picture is fetched. @param address by which drawings name it */
export function picturePath(address: string, isSmall = false): string {
  return `/api/pictures/${address.slice(SCHEME.length)}${isSmall ? '?size=small' : ''}`;
}

/** By which address drawings name a picture that is fetched by a name. */
export function pictureAddress(name: string): string {
  return SCHEME + name;
}
