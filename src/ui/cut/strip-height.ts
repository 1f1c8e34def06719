/** Rows of the filmstrip, in pixels. */
export const STRIP_HEIGHT = 64;
/** Rows above and below it, where the flags of the two ends stand and hang. */
export const FLAG_HEIGHT = 28;
