/** Why a server did not make a file. */
export const RENDER_FAULTS = ['damaged', 'no-room', 'broken', 'ended-server'] as const;
export type RenderFault = (typeof RENDER_FAULTS)[number];
