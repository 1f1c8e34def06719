/** Where a device's share sheet brings videos: the service worker takes them, from the form's field. */
export const SHARE_TARGET = { path: '/share', field: 'videos' } as const;
/** The cache that they wait in, and their address in it. */
export const SHARED_CACHE = 'shared';
export const sharedFile = (place: number): string => `/shared/${place}`;
/** The header that keeps a file's name, percent-encoded. */
export const SHARED_NAME = 'x-file-name';
/** How the app is opened then: with how many wait, or with `none` where there was nobody to take them. */
export const SHARED_QUERY = 'shared';
