import { createContext, useContext } from 'react';

/** Rows that a page shows without being scrolled: between its head and its tray, in pixels; 0 until that is known. */
export const PageRoom = createContext(0);

export const usePageRoom = (): number => useContext(PageRoom);
