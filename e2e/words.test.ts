import { execFileSync } from 'node:child_process';
import { makeClip, probe } from '../tests/make-clip';
import { makeSpoken } from '../tests/make-spoken';
import { similarity } from '../tests/ssim';
import { asFile, cutOut, type DrawnWords, wordsByPage } from '../tests/words-page';
import { atTheApp } from './app';

const GROUND = '#3C6478';
const CANVAS = { width: 1080, height: 1920 };
const FLAT = `drawbox=color=0x${GROUND.slice(1)}:t=fill`;

/** The share of a still's samples that are far from the colour of its corner. */
function inkIn(file: string): number {
  const args = ['-v', 'error', '-i', file, '-vf', 'format=gray', '-f', 'rawvideo', '-'];
  const data = execFileSync('ffmpeg', args, { maxBuffer: 1 << 26 });
  const corner = data[0] as number;
  return data.filter((value) => Math.abs(value - corner) > 40).length / data.length;
}

/** How alike two stills are, in all planes. */
const alike = (a: string, b: string): number => similarity(a, b, 'null').mean;

describe('words on the picture', () => {
  const here = atTheApp({ touch: true, scale: 2 });
  // A block as it comes lies in a box of 907×307 at 86, 1190, and its letters have 7 % of the shorter side. The line is
  // 1.15 of that high and stands in the middle; the font goes 1.024 up and 0.4 down, and what is left is shared by halves
  // (CSS Inline Layout Module Level 3, "half-leading"; the measures are those of its `hhea` table).
  const size = 75.5;
  const box = { x: 86, y: 1190, width: 907, height: 307 };
  const words: DrawnWords = {
    text: 'Kite Day at Windle Bay',
    file: 'source-sans-3-latin-700-normal.woff2',
    weight: 700,
    size,
    colour: '#FFFDF7',
    x: box.x + box.width / 2,
    y: Math.round(box.y + box.height / 2 + ((1.024 - 0.4) * size) / 2),
  };

  it('are in the file what a plain page draws: at their place, from their first frame to their last', async () => {
    const { visitor } = here;
    const film = makeClip('flat.mp4', { size: '1920x1080', rate: '25', seconds: 1.2, filter: FLAT });
    await visitor.bringIn(film);
    await visitor.step('Words');
    await visitor.tap('button', 'Add a block');
    await visitor.page.getByLabel('Words of the block').fill(words.text);
    await visitor.tap('radio', 'Look');
    await visitor.tap('radio', 'Outline');
    await visitor.tap('radio', 'No outline');
    await visitor.tap('radio', 'Time');
    await visitor.tap('radio', 'A range');
    await visitor.type('Last frame', '00:00:00:19');
    await visitor.type('First frame', '00:00:00:10');

    const drawn = asFile(await wordsByPage(visitor.context, CANVAS, GROUND, words), 'page.png');
    const wanted = cutOut(drawn, box);
    // The preview at a frame of the words, at its own size.
    await visitor.tap('radio', 'Write');
    await visitor.page.keyboard.press('Shift+W');
    for (let n = 0; n < 5; n++) await visitor.page.keyboard.press('w');
    await visitor.sees('frame 15 of 30');
    await visitor.page.waitForTimeout(1500);
    const shown = await visitor.page.evaluate(() => {
      const canvas = document.querySelector<HTMLCanvasElement>('canvas[aria-label="Verrow Short"]');
      return canvas && { data: canvas.toDataURL('image/png'), width: canvas.width, height: canvas.height };
    });
    if (!shown) throw new Error('the canvas is not on screen');
    const little = (value: number) => Math.round((value * shown.width) / CANVAS.width);
    const inLittle = {
      x: little(box.x),
      y: little(box.y),
      width: little(box.width),
      height: little(box.height),
    };
    const preview = asFile(Buffer.from(shown.data.split(',')[1] ?? '', 'base64'), 'preview.png');
    const scale = `${shown.width}:${shown.height}`;
    expect(alike(cutOut(preview, inLittle), cutOut(drawn, inLittle, { scale }))).toBeGreaterThan(0.98);

    await visitor.step('Export');
    await visitor.exportClip();
    const { file } = await visitor.download();
    const frame = (n: number) => cutOut(file, box, { frame: n });
    for (const n of [10, 14, 19]) expect(alike(frame(n), wanted)).toBeGreaterThan(0.98);
    const bare = cutOut(
      asFile(await wordsByPage(visitor.context, CANVAS, GROUND, { ...words, text: '' }), 'bare.png'),
      box,
    );
    for (const n of [0, 9, 20, 29]) {
      expect(alike(frame(n), bare)).toBeGreaterThan(0.98);
      expect(alike(frame(n), wanted)).toBeLessThan(0.9);
    }
  });

  it('make a banded square with a headline and a tag, by touch', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.bringIn(
      makeClip('banded.mp4', { size: '1920x1080', rate: '25', seconds: 1, filter: FLAT }),
    );
    await visitor.step('Canvas');
    await visitor.tap('radio', /^Tesselle Square/);
    await visitor.step('Words');
    await visitor.tap('button', /^Banded clip/);
    await visitor.page.getByLabel('Headline above').fill('Kite Day');
    await visitor.page.getByLabel('Line below').fill('Windle Bay, from noon');
    await visitor.tap('button', 'Make it banded');
    await visitor.page.getByRole('radio', { name: 'Block “Windle Bay, from noon”' }).waitFor();
    // Undone in one step, and done again.
    await visitor.tap('button', /^Undo: make a banded clip/);
    expect(await visitor.page.getByRole('radio', { name: /^Block “/ }).count()).toBe(0);
    await visitor.tap('button', /^Redo: /);
    // The end card plays after the picture, and the last frame is there again.
    await visitor.tap('button', 'Add an end card');
    const middle = () =>
      visitor.page.evaluate(() => {
        const canvas = document.querySelector<HTMLCanvasElement>('canvas[aria-label="Tesselle Square"]');
        const { width = 0, height = 0 } = canvas ?? {};
        return [...(canvas?.getContext('2d')?.getImageData(width >> 1, height >> 1, 1, 1).data ?? [])].slice(
          0,
          3,
        );
      });
    const card = [0x1f, 0x2b, 0x33].join();
    await visitor.tap('button', 'Play');
    await expect(async () => (await middle()).join() === card).toBecomeTrue();
    await visitor.page.getByRole('button', { name: 'Play', exact: true }).waitFor();
    await expect(async () => (await middle()).join() !== card).toBecomeTrue();
    await visitor.step('Export');
    await visitor.exportClip();
    const { file } = await visitor.download();
    const part = (y: number, height: number) => inkIn(cutOut(file, { x: 54, y, width: 972, height }));
    // 1920×1080 fitted to 1080 across is 608 high, between bands of 236: words on both, none on the picture.
    expect(part(20, 196)).toBeGreaterThan(0.04);
    expect(part(860, 200)).toBeGreaterThan(0.02);
    expect(part(260, 560)).toBe(0);
    // A second of picture and two of the card, which is all over the canvas.
    expect(probe(file)[0]?.nb_frames).toBe('75');
    const [seen, after] = [24, 25].map((frame) =>
      cutOut(file, { x: 0, y: 0, width: 1080, height: 1080 }, { frame }),
    );
    expect(inkIn(seen!)).toBeGreaterThan(0.3);
    expect(inkIn(after!)).toBe(0);
  });

  it('bring captions in, mend what is found, and burn them in', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.bringIn(
      makeClip('captioned.mp4', { size: '1920x1080', rate: '25', seconds: 4, filter: FLAT }),
    );
    await visitor.step('Words');
    await visitor.tap('radio', 'Captions');
    await visitor.tap('radio', 'Bring in');
    const captions = [
      '1\n00:00:00,520 --> 00:00:01,000\nThe wind comes back to the bay',
      '2\n00:00:02,000 --> 00:00:03,200\nand with it\ncome\nthe kites',
    ].join('\n\n');
    await visitor.pick(asFile(Buffer.from(captions), 'kites.srt'), 'Open .srt or .vtt');
    await visitor.tap('button', 'The start of this clip');
    await visitor.sees('2 captions of kites.srt taken');
    await visitor.tap('radio', 'Cue');
    await visitor.sees('2 captions, 2 to look at');
    // The first is read too fast, and stays too short a time: fewer words, and twenty frames more.
    await visitor.tap('button', /^Caption 1/);
    await visitor.sees(/It is read at/);
    await visitor.page.getByLabel('Words of the caption').fill('Wind is back');
    await visitor.page.getByRole('slider', { name: /last frame$/ }).press('PageUp');
    await visitor.page.getByRole('slider', { name: /last frame$/ }).press('PageUp');
    await visitor.sees('2 captions, one to look at');
    await visitor.tap('button', /^Caption 2/);
    await visitor.page.getByLabel('Words of the caption').fill('and the kites');
    await visitor.sees('2 captions, nothing to mend');
    await visitor.step('Check');
    expect(await visitor.finding('Captions')).toBe('Captions: pass');
    await visitor.step('Export');
    await visitor.exportClip();
    const { file } = await visitor.download();
    const lower = { x: 0, y: 900, width: 1080, height: 1000 };
    const ink = [12, 13, 44, 45, 49, 50, 79, 80].map(
      (frame) => inkIn(cutOut(file, lower, { frame })) > 0.002,
    );
    expect(ink).toEqual([false, true, true, false, false, true, true, false]);
    expect(visitor.errors).toEqual([]);
  });

  it('lay a script on the speech that is found, corrected by tapping along', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    const film = makeSpoken([
      { recording: 'nandou_desc', at: 1 },
      { recording: 'bison_desc', at: 6 },
      { recording: 'mountaingoat_desc', at: 11 },
    ]);
    await visitor.bringIn(film);
    await visitor.step('Words');
    await visitor.tap('radio', 'Captions');
    await visitor.tap('radio', 'Bring in');
    await visitor.tap('button', /^Find the speech in/);
    await visitor.page.getByText(/^Speech was found in/).waitFor({ timeout: 90_000 });
    await visitor.page.getByLabel('Script: what is spoken').fill('A nandu.\nA bison.\nA mountain goat.');
    await visitor.tap('button', 'Lay the script on the speech');
    await visitor.tap('radio', 'Tap');
    const starts = async () =>
      (await visitor.page.getByText(/^\d\d:\d\d:\d\d:\d\d to /).allInnerTexts()).map((text) => {
        const [, , seconds = 0, frames = 0] = text.slice(0, 11).split(':').map(Number);
        return seconds + frames / 25;
      });
    await visitor.page
      .getByText(/^\d\d:\d\d:\d\d:\d\d to /)
      .nth(2)
      .waitFor();
    const laid = await starts();
    // The recordings begin at 1, 6 and 11 s, and somebody speaks from there on, within half a second.
    [1, 6, 11].forEach((at, i) => expect(Math.abs((laid[i] ?? 0) - at)).toBeLessThan(0.5));
    await visitor.tap('button', 'From the first line');
    await visitor.page.getByRole('button', { name: 'Line 1 begins' }).waitFor();
    await visitor.page.waitForTimeout(1500);
    await visitor.tap('button', 'Line 1 begins');
    await visitor.page.getByRole('button', { name: 'Line 2 begins' }).waitFor();
    const tapped = await starts();
    expect(tapped[0]).not.toBe(laid[0]);
    expect(tapped.slice(1)).toEqual(laid.slice(1));
    await visitor.tap('button', /^Undo: tap the start/);
    expect(await starts()).toEqual(laid);
  });

  it('choose a cover, save it, and send it with the post, and captions as a file', async () => {
    const { visitor, server } = here;
    await visitor.page.goto('/');
    // Its picture is dark at first and light in the end.
    const filter = "drawbox=color=black:t=fill:enable='lt(t,0.5)'";
    await visitor.bringIn(makeClip('cover.mp4', { size: '1920x1080', rate: '25', seconds: 1.6, filter }));
    await visitor.step('Words');
    await visitor.tap('radio', 'Captions');
    await visitor.tap('radio', 'Bring in');
    const spoken = '1\n00:00:00,520 --> 00:00:01,520\nOver the bay';
    await visitor.pick(asFile(Buffer.from(spoken), 'bay.srt'), 'Open .srt or .vtt');
    await visitor.tap('button', 'The start of this clip');
    await visitor.tap('radio', 'Look');
    await visitor.tap('radio', 'As files');
    await visitor.tap('radio', 'Cover');
    const proposals = visitor.page.getByRole('radio', { name: /^Frame \d+ as the cover/ });
    await proposals.first().waitFor({ timeout: 60_000 });
    const frames = (await proposals.evaluateAll((all) => all.map((one) => one.ariaLabel ?? ''))).map((name) =>
      Number(/\d+/.exec(name)?.[0]),
    );
    for (const frame of frames) expect(frame).toBeGreaterThanOrEqual(13);
    await proposals.first().tap();
    await visitor.tap('button', 'Words on the cover');
    await visitor.page.getByLabel('Words of the block').fill('Kite Day');
    const [download] = await Promise.all([
      visitor.page.waitForEvent('download'),
      visitor.tap('button', 'Save PNG of the cover'),
    ]);
    const saved = asFile(Buffer.from(''), 'cover.png');
    await download.saveAs(saved);
    const [still] = probe(saved);
    expect([still?.codec_name, still?.width, still?.height]).toEqual(['png', 1080, 1920]);

    await visitor.step('Export');
    await visitor.exportClip();
    const { file } = await visitor.download();
    // Words of the cover are on the cover alone.
    const middle = { x: 100, y: 760, width: 880, height: 400 };
    const own = cutOut(file, middle, { frame: frames[0]! });
    expect(alike(own, cutOut(saved, middle))).toBeLessThan(0.95);
    const upper = { x: 0, y: 0, width: 1080, height: 600 };
    const likeness = (frame: number) => alike(cutOut(file, upper, { frame }), cutOut(saved, upper));
    expect(likeness(frames[0]!)).toBeGreaterThan(0.8);
    for (const by of [-4, 4]) expect(likeness(frames[0]! + by)).toBeLessThan(likeness(frames[0]!));

    await visitor.step('Post');
    await visitor.page.getByLabel('Title', { exact: true }).fill('Kites over the bay');
    await visitor.step('Check');
    await visitor.press('Say that it is not made for children');
    await visitor.press('Add #upright');
    await visitor.step('Post');
    await visitor.signIn('Verrow', 'odlin');
    await visitor.tap('button', /^Post to Verrow as/);
    await visitor.sees(/is up on Verrow/, 60_000);
    const board = await visitor.page.evaluate(async () => (await fetch('/outlets/verrow/')).text());
    const poster = /poster="([^"]+)"/.exec(board)?.[1];
    expect(poster).toBeDefined();
    const track = /<track kind="captions"[^>]* src="([^"]+)"/.exec(board)?.[1];
    const shown = await visitor.page.evaluate(async (address) => (await fetch(address)).text(), track!);
    expect(shown).toMatch(/^WEBVTT[^]*00:00:00\.520 --> 00:00:01\.520[^]*Over the bay/);
    const bytes = await visitor.page.evaluate(
      async (address) => [...new Uint8Array(await (await fetch(address)).arrayBuffer())],
      poster!,
    );
    const [sent] = probe(asFile(Buffer.from(bytes), 'sent.jpg'));
    expect([sent?.codec_name, sent?.width, sent?.height]).toEqual(['mjpeg', 1080, 1920]);
    // It is as private as the post.
    expect((await fetch(`${server.origin}${poster}`)).status).toBe(404);
    expect(visitor.errors).toEqual([]);
  });
});
