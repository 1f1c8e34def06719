/** Public face of the app as a whole: open it, its theme, its storage and its work without a line. */
export { takeNewer, takeSharedFiles, useOffline } from './offline';
export { openApp } from './open-app';
export { type JobStorage, measureStorage, useStorageRoom } from './storage-use';
export { theme, type ThemeChoice } from './theme';
