/** Name of the stand-in of a chat app. */
export const CHAT_NAME = 'Windle Chat';
/** Where files go up to it (tus), from the server's root. */
export const CHAT_UPLOADS = '/chat/api/uploads';
/** Address of the file that the recipient in the chat gets: made once it is asked for, and not kept. */
export const chatFilePath = (upload: string): string => `/chat/api/files/${upload}`;
