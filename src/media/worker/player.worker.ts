import '@core/no-eval';
import { PlayerEngine } from '../play/player-engine';
import type { PlayerOrder } from '../play/player-protocol';

const engine = new PlayerEngine((event, transfer = []) => self.postMessage(event, { transfer }));
self.onmessage = ({ data }: MessageEvent<PlayerOrder>) => void engine.obey(data);
