import { sum } from '../src/core/figures/sum';
import { makeClip } from '../tests/make-clip';
import { atTheApp, type Visitor } from './app';

/**
 * Put before a worker's script: counts video frames that are open, and tells them at every message to its owner; a
 * frame that goes with the message is no longer this worker's.
 */
const COUNTER = (name: string) => `
if (self.name === ${JSON.stringify(name)}) {
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
  for (const sent of rest[0]?.transfer ?? []) open.delete(sent);
  channel.postMessage({ type: message.type, open: open.size, most });
  return tell(message, ...rest);
};
}
`;

/** Put before the script of a worker that has workers of its own, whose scripts no route sees: counts in those. */
const COUNTER_WITHIN = `
globalThis.Worker = new Proxy(Worker, {
  construct(made, [url, options]) {
    const request = new XMLHttpRequest();
    request.open('GET', url, false);
    request.send();
    // A script out of a blob has no address that others are relative to.
    const script = request.responseText.replaceAll('"/workers/', '"' + location.origin + '/workers/');
    const fetches = 'const asked = self.fetch; self.fetch = (address, ...rest) => ' +
      'asked(typeof address === "string" ? new URL(address, self.location.origin) : address, ...rest);';
    return new made(URL.createObjectURL(new Blob([fetches, ${JSON.stringify(COUNTER(''))}, script], { type: 'text/javascript' })), options);
  },
});
`;

interface Count {
  type: string;
  open: number;
  most: number;
}

/** Opens the app with the counter in the worker of a task. @returns a way to ask what it counted. */
async function countIn(
  visitor: Visitor,
  name: string,
  counter = COUNTER(name),
): Promise<() => Promise<Count[]>> {
  await visitor.page.route('**/workers/task.worker-*.js', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, body: counter + (await response.text()) });
  });
  await visitor.page.evaluate(() => {
    const counts: unknown[] = [];
    new BroadcastChannel('open-frames').onmessage = ({ data }) => counts.push(data);
    Object.assign(window, { counts });
  });
  return () => visitor.page.evaluate(() => (window as unknown as { counts: Count[] }).counts);
}

describe.each(['export', 'read-back'])('the %s worker', (name) => {
  const here = atTheApp();
  it('closes every frame, and holds few at a time', async () => {
    const { visitor } = here;
    const counted = await countIn(visitor, name);
    await visitor.bringIn(makeClip('frames.mp4', { size: '640x360', seconds: 8 }));
    await visitor.resizeCanvas();
    await visitor.step('Export');
    await visitor.exportClip();
    const last = (await counted()).pop();
    expect(last).toMatchObject({ type: 'done', open: 0 });
    expect(last?.most).toBeGreaterThan(0);
    // 192 frames went through. The decoder may run 40 ahead, and a few are being drawn and encoded.
    expect(last?.most).toBeLessThan(64);
  });
});

describe('an export', () => {
  const here = atTheApp();
  it('waits while something plays, and goes on after it', async () => {
    const { visitor } = here;
    const counted = await countIn(visitor, 'export');
    await visitor.bringIn(makeClip('waits.mp4', { size: '1920x1080', seconds: 8 }));
    await visitor.step('Export');
    await visitor.press('Export to MP4');
    await visitor.sees(/^Exporting: frame/);
    await visitor.step('Framing');
    await visitor.press('Play');
    await visitor.button('Pause').waitFor();
    let before = -1;
    // What was under way is done with first.
    await expect(async () => {
      const was = before;
      before = (await counted()).length;
      await visitor.page.waitForTimeout(1000);
      return before === was;
    }).toBecomeTrue();
    await visitor.press('Pause');
    await expect(async () => (await counted()).length > before).toBecomeTrue();
  });
});

describe('the workers of a pass', () => {
  const here = atTheApp();
  it('close every frame that they do not hand on, and hold few at a time', async () => {
    const { visitor } = here;
    const counted = await countIn(visitor, 'pass', COUNTER_WITHIN);
    await visitor.bringIn(makeClip('lanes.mp4', { size: '640x360', seconds: 12 }));
    const ends = async () => (await counted()).filter((count) => count.type === 'through');
    await expect(async () => (await ends()).length >= 2).toBecomeTrue();
    for (const end of await ends()) {
      expect(end.open).toBe(0);
      // Eight decoded ahead, one being seen, what it was made of, and the tiles of a message.
      expect(end.most).toBeLessThan(16);
    }
  });
});

describe('sound', () => {
  const here = atTheApp();
  it('is played in step with the picture', async () => {
    const { visitor } = here;
    await visitor.page.evaluate(() => {
      const heard: { place: number; seconds: number }[] = [];
      const { start } = AudioBufferSourceNode.prototype;
      AudioBufferSourceNode.prototype.start = function (this: AudioBufferSourceNode, when = 0, offset = 0) {
        // Where its beginning belongs, also where that came too late to be heard.
        heard.push({ place: when - offset, seconds: this.buffer?.duration ?? 0 });
        return start.call(this, when, offset);
      };
      Object.assign(window, { heard });
    });
    await visitor.bringIn(makeClip('sound.mp4', { size: '640x360', seconds: 8 }));
    await visitor.step('Framing');
    await visitor.press('Play');
    // A busy machine takes a moment before it plays at all.
    await visitor.button('Pause').waitFor();
    await visitor.button('Play').waitFor({ timeout: 30_000 });
    const heard = await visitor.page.evaluate(
      () => (window as unknown as { heard: { place: number; seconds: number }[] }).heard,
    );
    // To the end, whatever a machine at work leaves out at first and on the way: that is not most of it.
    const [first, last] = [heard[0]!, heard[heard.length - 1]!];
    expect(last.place + last.seconds - first.place).toBeGreaterThan(4);
    expect(sum(heard.map(({ seconds }) => seconds))).toBeGreaterThan(3);
    for (let i = 1; i < heard.length; i++) {
      const [before, piece] = [heard[i - 1]!, heard[i]!];
      // Pieces are of one length, and begin where the one before them ended, or where one was left out.
      const leftOut = (piece.place - before.place) / before.seconds - 1;
      expect(Math.round(leftOut)).toBeGreaterThanOrEqual(0);
      expect(Math.abs(leftOut - Math.round(leftOut)) * before.seconds).toBeLessThan(0.002);
    }
  });
});
