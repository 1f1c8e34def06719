/** What the stand-in of a chat app is called. */
export const CHAT_NAME = 'Windle Chat';
/** Where files go up to it (tus), from the server's root. */
export const CHAT_UPLOADS = '/chat/api/uploads';
/** What whoever is sent a file through it gets: made once it is asked for, and not kept. */
export const chatFilePath = (upload: string): string => `/chat/api/files/${upload}`;
