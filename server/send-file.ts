import type { NextFunction, Response } from 'express';

/** Sends a film, or a part of it; whoever asked for it may go away meanwhile. @param file an absolute path. */
export function sendFilm(response: Response, next: NextFunction, file: string): void {
  response.type('video/mp4').sendFile(file, (error?: NodeJS.ErrnoException) => {
    if (error && error.code !== 'ECONNABORTED') next(error);
  });
}
