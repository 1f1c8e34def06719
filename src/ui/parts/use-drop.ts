import { useEffect, useState } from 'react';

/** Takes a file that is dropped anywhere on the page. @returns whether one hangs over it. */
export function useDrop(onFile: (file: File) => void): boolean {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const hover = (event: DragEvent) => {
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      const file = event.dataTransfer?.files[0];
      if (file) onFile(file);
    };
    window.addEventListener('dragover', hover);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', hover);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, [onFile]);
  return over;
}
