import '@core/no-eval';
import { CheckerEngine } from '../check/checker-engine';
import type { CheckOrder } from '../check/check-protocol';

const engine = new CheckerEngine((event) => self.postMessage(event));
self.onmessage = ({ data }: MessageEvent<CheckOrder>) => void engine.obey(data);
