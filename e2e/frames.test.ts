import { makeClip } from '../tests/make-clip';
import { TestServer, Visitor } from './app';

/** Put before a worker's script: counts video frames that are open, and tells them at every message to the page. */
const COUNTER = `
const open = new Set();
let most = 0;
const track = (frame) => { open.add(frame); most = Math.max(most, open.size); return frame; };
const { close, clone } = VideoFrame.prototype;
VideoFrame.prototype.close = function () { open.delete(this); return close.call(this); };
VideoFrame.prototype.clone = function () { return track(clone.call(this)); };
globalThis.VideoFrame = new Proxy(VideoFrame, { construct: (made, args) => track(new made(...args)) });
globalThis.VideoDecoder = new Proxy(VideoDecoder, {
  construct: (made, [init]) => new made({ ...init, output: (frame) => init.output(track(frame)) }),
});
const channel = new BroadcastChannel('open-frames');
const tell = self.postMessage.bind(self);
self.postMessage = (message, ...rest) => {
  channel.postMessage({ type: message.type, open: open.size, most });
  return tell(message, ...rest);
};
`;

interface Count {
  type: string;
  open: number;
  most: number;
}

it.each(['export', 'read-back'])(
  'the %s worker closes every frame, and holds few at a time',
  async (name) => {
    const server = new TestServer();
    await server.start();
    const visitor = await Visitor.arrive(server.origin);
    try {
      await visitor.page.route(`**/workers/${name}.worker-*.js`, async (route) => {
        const response = await route.fetch();
        await route.fulfill({ response, body: COUNTER + (await response.text()) });
      });
      await visitor.page.evaluate(() => {
        const counts: unknown[] = [];
        new BroadcastChannel('open-frames').onmessage = ({ data }) => counts.push(data);
        Object.assign(window, { counts });
      });
      await visitor.bringIn(makeClip('frames.mp4', { size: '640x360', seconds: 8 }));
      await visitor.step('Export');
      await visitor.exportClip();
      const counts = await visitor.page.evaluate(() => (window as unknown as { counts: Count[] }).counts);
      const last = counts[counts.length - 1];
      expect(last).toMatchObject({ type: 'done', open: 0 });
      expect(last?.most).toBeGreaterThan(0);
      // 192 frames went through. The decoder may run 40 ahead, and a few are being drawn and encoded.
      expect(last?.most).toBeLessThan(64);
    } finally {
      await visitor.leave();
      await server.stop();
    }
  },
);

it('sound is played in step with the picture', async () => {
  const server = new TestServer();
  await server.start();
  const visitor = await Visitor.arrive(server.origin);
  try {
    await visitor.page.evaluate(() => {
      const heard: { at: number; seconds: number }[] = [];
      const { start } = AudioBufferSourceNode.prototype;
      AudioBufferSourceNode.prototype.start = function (
        this: AudioBufferSourceNode,
        when = 0,
        ...rest: number[]
      ) {
        heard.push({ at: when, seconds: this.buffer?.duration ?? 0 });
        return start.call(this, when, ...rest);
      };
      Object.assign(window, { heard });
    });
    await visitor.bringIn(makeClip('sound.mp4', { size: '640x360', seconds: 3 }));
    await visitor.step('Framing');
    await visitor.press('Play');
    await visitor.button('Play').waitFor({ timeout: 20_000 });
    const heard = await visitor.page.evaluate(
      () => (window as unknown as { heard: { at: number; seconds: number }[] }).heard,
    );
    const total = heard.reduce((sum, piece) => sum + piece.seconds, 0);
    expect(total).toBeGreaterThan(2.5);
    // Each piece begins where the one before it ended.
    for (let i = 1; i < heard.length; i++) {
      const [before, piece] = [heard[i - 1]!, heard[i]!];
      expect(Math.abs(piece.at - before.at - before.seconds)).toBeLessThan(0.03);
    }
  } finally {
    await visitor.leave();
    await server.stop();
  }
});
