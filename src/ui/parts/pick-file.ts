/** Kinds that the picker offers; the file itself is judged by what is in it. */
const ACCEPT = 'video/*,.mp4,.mov,.m4v,.webm,.mkv';

/** Cut lists have no type of their own. */
const ACCEPT_LISTS = '.otio,.edl,.txt,.json';

/** Asks for one video file. @returns null when the person backs out. */
export const pickVideo = (): Promise<File | null> => pick(ACCEPT);

/** Asks for a cut list. @returns null when the person backs out. */
export const pickList = (): Promise<File | null> => pick(ACCEPT_LISTS);

/** Asks for a file of presets, or of styles. @returns null when the person backs out. */
export const pickJson = (): Promise<File | null> => pick('.json,application/json');

/** Asks for a font. @returns null when the person backs out. */
export const pickFont = (): Promise<File | null> => pick('.ttf,.otf,.woff2,font/*');

/** Asks for a file of captions. @returns null when the person backs out. */
export const pickCaptions = (): Promise<File | null> => pick('.srt,.vtt,.txt,text/vtt');

/** Asks for a job that was saved as a file, with its masters or without. @returns null when the person backs out. */
export const pickJob = (): Promise<File | null> => pick('.json,.zip,application/json,application/zip');

function pick(accept: string): Promise<File | null> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.onchange = () => resolve(input.files?.[0] ?? null);
    input.oncancel = () => resolve(null);
    input.click();
  });
}

/** Offers a file to the person's downloads under its own name. */
export function saveFile(file: File): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = file.name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
}
