import { create } from 'zustand';

/** Where an export stands that is in the queue. */
export interface ExportProgress {
  jobId: string;
  stage: 'send' | 'export' | 'fetch' | 'read-back' | 'waiting' | 'held';
  done: number;
  total: number;
  /** Frames a second, and seconds left; null while there is nothing to reckon from. */
  speed: number | null;
  left: number | null;
}

interface QueueState {
  /** By export. */
  running: Record<string, ExportProgress>;
}

export const useExportQueue = create<QueueState>(() => ({ running: {} }));

/** Tells whether anything is being exported. */
export const isExporting = ({ running }: QueueState): boolean => Object.keys(running).length > 0;
