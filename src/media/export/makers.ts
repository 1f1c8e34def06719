import type { ExportContainer } from '@core/render/container';
import type { Maker } from './maker';
import { mp4Maker } from './makers/mp4';

/** What makes each container: a file and a line each. */
export const MAKERS: Record<ExportContainer, Maker> = { mp4: mp4Maker };
