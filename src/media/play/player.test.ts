import type { PlayerEvent, PlayerOrder } from './player-protocol';
import { Player } from './player';

jest.mock('../worker/worker-urls', () => ({ workerUrls: { player: 'player.js' } }));

/** A worker that only takes down what it is told. */
class StillWorker {
  static last: StillWorker;
  onmessage: ((event: { data: PlayerEvent }) => void) | null = null;
  readonly orders: PlayerOrder[] = [];

  constructor() {
    StillWorker.last = this;
  }
  postMessage(order: PlayerOrder): void {
    this.orders.push(order);
  }
  terminate(): void {}
}

/** A sound device that wakes when it is let. */
class SleepingDevice {
  static last: SleepingDevice;
  readonly started: { due: number; missed: number }[] = [];
  currentTime = 10;
  outputLatency = 0.25;
  destination = {};
  wake: () => void = () => undefined;

  constructor() {
    SleepingDevice.last = this;
  }
  resume = () => new Promise<void>((resolve) => (this.wake = resolve));
  createBuffer = (_channels: number, length: number, sampleRate: number) => ({
    duration: length / sampleRate,
    copyToChannel: () => undefined,
  });
  createBufferSource = () => ({
    playbackRate: { value: 1 },
    connect: () => undefined,
    stop: () => undefined,
    start: (due: number, missed: number) => this.started.push({ due, missed }),
  });
}

const listener = { onFrame: jest.fn(), onQuality: jest.fn(), onEnded: jest.fn(), onTrouble: jest.fn() };
let clock = 1000;
let player: Player;

const hear = (data: PlayerEvent) => StillWorker.last.onmessage?.({ data });
const sound = (playId: number, start: number): PlayerEvent => ({
  ...{ type: 'sound', playId, start, sampleRate: 48_000 },
  channels: [new Float32Array(480)],
});
const lastPlay = () => StillWorker.last.orders.findLast((order) => order.type === 'play')!;
const play = () => {
  player.play([{ source: 0, from: 0, to: 100 }], 'full', 1, false);
  return lastPlay().playId;
};
const woken = async () => {
  SleepingDevice.last.wake();
  await Promise.resolve();
};

beforeEach(() => {
  jest.clearAllMocks();
  Object.assign(globalThis, { Worker: StillWorker, AudioContext: SleepingDevice });
  jest.spyOn(performance, 'now').mockImplementation(() => clock - performance.timeOrigin);
  player = new Player([], listener);
});

describe('the sound of what plays', () => {
  it('is heard with the picture, however late its device wakes', async () => {
    const id = play();
    // The picture waits for what the device is late by.
    expect(lastPlay().startsAt).toBeCloseTo(clock + 150 + 250, 3);
    hear(sound(id, 0.5));
    const device = SleepingDevice.last;
    expect(device.started).toEqual([]);
    clock += 400;
    await woken();
    hear(sound(id, 1));
    // Asked for at 1.15 s: by the clock of the device, 0.4 s after it was asked for, that is 0.25 s and 0.75 s on.
    expect(device.started.map(({ due }) => due)).toEqual([
      expect.closeTo(10.25, 6),
      expect.closeTo(10.75, 6),
    ]);
  });

  it('is not heard after a pause, nor with the next play', async () => {
    const first = play();
    await woken();
    player.pause();
    hear(sound(first, 0.5));
    const second = play();
    await woken();
    hear(sound(first, 0.5));
    expect(SleepingDevice.last.started).toEqual([]);
    hear(sound(second, 0.5));
    expect(SleepingDevice.last.started).toHaveLength(1);
  });
});

describe('what is still on its way of an earlier play', () => {
  it('neither ends the next nor is shown in it', () => {
    const close = jest.fn();
    const frameOf = (playId: number): PlayerEvent => ({
      ...{ type: 'frame', source: 0, frame: 7, piece: { playId, index: 0 } },
      pictures: { master: { close } as unknown as ImageBitmap },
    });
    const [first, second] = [play(), play()];
    hear({ type: 'ended', playId: first });
    hear(frameOf(first));
    expect([listener.onEnded, listener.onFrame].map((told) => told.mock.calls.length)).toEqual([0, 0]);
    expect(close).toHaveBeenCalledTimes(1);
    hear(frameOf(second));
    hear({ type: 'ended', playId: second });
    expect([listener.onEnded, listener.onFrame].map((told) => told.mock.calls.length)).toEqual([1, 1]);
  });
});
