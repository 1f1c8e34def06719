/** Containers that outlets' files may be in, as ffmpeg names their readers. */
export const OUTLET_CONTAINERS = 'mov,mp4,m4a,3gp,3g2,mj2,matroska,webm';

/** Containers of one film each, with nothing in them that names another file: what may be converted. */
export const MASTER_CONTAINERS = `${OUTLET_CONTAINERS},avi,mpegts,mpeg,asf,flv,mxf,ogg`;

/** Stills, as ffmpeg names their readers. */
export const STILL_CONTAINERS = 'jpeg_pipe,image2';

/** Largest picture that is decoded, in samples: 8192 × 4320. */
const MAX_PIXELS = 8192 * 4320;

/**
 * Arguments that open one file and nothing else: no playlist, no address, no picture too large to hold.
 * @param containers names of the readers that may be used. @param file an absolute path.
 */
export function safeInput(containers: string, file: string): string[] {
  return [
    ...['-protocol_whitelist', 'file', '-format_whitelist', containers],
    ...['-max_pixels', String(MAX_PIXELS), '-i', `file:${file}`],
  ];
}

/** Arguments that read the picture and the first sound of one film, to be encoded anew. @param file an absolute path. */
export const filmInput = (containers: string, file: string): string[] => [
  ...['-y', '-v', 'error', '-nostdin', ...safeInput(containers, file)],
  ...['-map', '0:v:0', '-map', '0:a:0?'],
];
