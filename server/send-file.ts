import type { NextFunction, Response } from 'express';

/** Sends a film, or a part of it; whoever asked for it may go away meanwhile. @param file an absolute path. */
export const sendFilm = (response: Response, next: NextFunction, file: string): void =>
  send(response.type('video/mp4'), next, file);

/** Sends a JPEG. @param file an absolute path. */
export const sendStill = (response: Response, next: NextFunction, file: string): void =>
  send(response.type('image/jpeg'), next, file);

function send(response: Response, next: NextFunction, file: string): void {
  response.sendFile(file, (error?: NodeJS.ErrnoException) => {
    if (error && error.code !== 'ECONNABORTED') next(error);
  });
}
