import {
  BLUE,
  beach,
  clouds,
  dune,
  EVENING,
  FERN,
  GOLD,
  HEIGHT,
  type Ink,
  kite,
  line,
  NOON,
  person,
  PLUM,
  type Point,
  RED,
  sea,
  sky,
  WIDTH,
  chance,
  type Dress,
} from './paint';

/** A shot of the film: how long it is, what it draws, and where its subject is. */
export interface FilmShot {
  name: string;
  /** Frames at 24000/1001. */
  frames: number;
  draw(ink: Ink, seconds: number): void;
  /** The subject's place in the picture at a time in the shot, in pixels. */
  subject(seconds: number): Point;
}

const ANA: Dress = { coat: '#c9503a', legs: '#31465a', skin: '#b98462', hair: '#3b2a22' };
const BEN: Dress = { coat: '#2f6d78', legs: '#5a4a3a', skin: '#e3b994', hair: '#7a4b2a' };
const CAL: Dress = { coat: '#d9a441', legs: '#3b4a5c', skin: '#8a5a3e', hair: '#201a18' };

function shoreline(ink: Ink, seconds: number, horizon: number, shore: number, light = NOON): void {
  sky(ink, light, horizon);
  clouds(ink, light, seconds, 9, horizon * 0.55);
  sea(ink, light, seconds, horizon, shore);
  beach(ink, light, seconds, shore);
}

/** A far headland with a white light tower on it. */
function headland(ink: Ink, horizon: number): void {
  ink.fillStyle = '#7d9a94';
  ink.beginPath();
  ink.moveTo(1180, horizon + 2);
  ink.bezierCurveTo(1350, horizon - 90, 1560, horizon - 120, WIDTH, horizon - 150);
  ink.lineTo(WIDTH, horizon + 2);
  ink.fill();
  ink.fillStyle = '#f4efe0';
  ink.fillRect(1622, horizon - 186, 22, 72);
  ink.fillStyle = '#b0563f';
  ink.fillRect(1618, horizon - 200, 30, 16);
}

const wide: FilmShot = {
  name: 'The bay',
  frames: 144,
  subject: (s) => ({ x: 900 + 30 * s, y: 330 }),
  draw(ink, seconds) {
    const push = 1 + 0.018 * seconds;
    ink.save();
    ink.translate(WIDTH / 2, HEIGHT * 0.6);
    ink.scale(push, push);
    ink.translate(-WIDTH / 2, -HEIGHT * 0.6);
    shoreline(ink, seconds, 560, 720);
    headland(ink, 560);
    const cloths = [RED, BLUE, GOLD, PLUM, FERN, RED, GOLD, BLUE];
    cloths.forEach((cloth, i) => {
      const drift = Math.sin(seconds * 0.9 + i * 1.7);
      const place = {
        x: 230 + i * 205 + 24 * drift,
        y: 150 + 210 * chance(i + 60) + 16 * Math.cos(seconds + i),
      };
      const flyer = { x: 170 + i * 190 + 60 * chance(i + 80), y: 800 + 90 * chance(i + 90) };
      const dress = [ANA, BEN, CAL][i % 3] as Dress;
      const hand = person(ink, flyer, 92, dress, 0.5);
      line(ink, hand, place, 1.4);
      kite(ink, place, 92, cloth, 0.25 + 0.12 * drift, seconds + i);
    });
    dune(ink, NOON, seconds, -160, 420, 150);
    ink.restore();
  },
};

const crossing: FilmShot = {
  name: 'The red kite crosses',
  frames: 144,
  subject: (s) => ({ x: 210 + 255 * s, y: 430 - 70 * Math.sin(s * 1.1) }),
  draw(ink, seconds) {
    shoreline(ink, seconds + 20, 690, 830);
    const place = crossing.subject(seconds);
    const hand = person(ink, { x: 980, y: 1010 }, 250, ANA, -0.5 + seconds * 0.17);
    line(ink, hand, { x: place.x, y: place.y + 30 }, 2.4);
    kite(ink, place, 300, RED, 0.35 + 0.12 * Math.sin(seconds * 2), seconds);
    dune(ink, NOON, seconds, 1480, 2120, 170);
  },
};

const diving: FilmShot = {
  name: 'The blue kite dives and climbs',
  frames: 144,
  subject: (s) => ({ x: 1250 - 330 * Math.sin(s * 0.78), y: 330 + 250 * Math.sin(s * 1.55 - 0.6) }),
  draw(ink, seconds) {
    shoreline(ink, seconds + 47, 760, 890);
    const place = diving.subject(seconds);
    const ahead = diving.subject(seconds + 0.04);
    const lean = Math.atan2(ahead.y - place.y, ahead.x - place.x) + Math.PI / 2;
    line(ink, { x: 620, y: HEIGHT + 20 }, place, 2.4);
    kite(ink, place, 260, BLUE, lean * 0.55, seconds);
    kite(ink, { x: 330 + 20 * Math.sin(seconds), y: 250 + 14 * Math.cos(seconds) }, 110, GOLD, 0.3, seconds);
  },
};

const apart: FilmShot = {
  name: 'Two flyers, far apart',
  frames: 144,
  subject: () => ({ x: 460, y: 640 }),
  draw(ink, seconds) {
    shoreline(ink, seconds + 80, 520, 660);
    headland(ink, 520);
    const sway = Math.sin(seconds * 1.4);
    const left = person(ink, { x: 430, y: 980 }, 400, BEN, 0.42 + 0.05 * sway);
    const right = person(ink, { x: 1530, y: 960 }, 380, CAL, -0.5 + 0.05 * sway);
    const plum = { x: 640 + 24 * sway, y: 240 + 18 * Math.cos(seconds * 1.2) };
    const fern = { x: 1260 - 26 * sway, y: 280 + 16 * Math.sin(seconds * 1.1) };
    line(ink, left, plum, 2.4);
    line(ink, right, fern, 2.4);
    kite(ink, plum, 190, PLUM, 0.3 + 0.1 * sway, seconds);
    kite(ink, fern, 190, FERN, -0.3 + 0.1 * sway, seconds + 1);
  },
};

const still: FilmShot = {
  name: 'The paper windmill',
  frames: 120,
  subject: () => ({ x: 1490, y: 560 }),
  draw(ink, seconds) {
    shoreline(ink, seconds + 120, 430, 610);
    dune(ink, NOON, seconds, -260, 900, 300);
    const hub = { x: 1490, y: 480 };
    ink.strokeStyle = '#7a5233';
    ink.lineWidth = 18;
    ink.beginPath();
    ink.moveTo(hub.x, hub.y);
    ink.lineTo(hub.x - 10, 960);
    ink.stroke();
    ink.fillStyle = '#bf9a5c';
    ink.beginPath();
    ink.ellipse(hub.x - 10, 975, 150, 46, 0, 0, 2 * Math.PI);
    ink.fill();
    const vanes = ['#e2583e', '#e9b64a', '#3f7fb2', '#7f9a45', '#8c5a8f', '#f3ead4'];
    vanes.forEach((colour, i) => {
      ink.save();
      ink.translate(hub.x, hub.y);
      ink.rotate(seconds * 2.6 + (i * Math.PI) / 3);
      ink.fillStyle = colour;
      ink.beginPath();
      ink.moveTo(0, 0);
      ink.lineTo(34, -190);
      ink.quadraticCurveTo(150, -150, 118, -58);
      ink.fill();
      ink.restore();
    });
    ink.fillStyle = '#4a3324';
    ink.beginPath();
    ink.arc(hub.x, hub.y, 20, 0, 2 * Math.PI);
    ink.fill();
  },
};

const detail: FilmShot = {
  name: 'The reel, close',
  frames: 120,
  subject: (s) => ({ x: 960 + 14 * Math.sin(s * 2), y: 590 }),
  draw(ink, seconds) {
    sky(ink, NOON, HEIGHT);
    clouds(ink, NOON, seconds * 3, 6, 420);
    const { x, y } = detail.subject(seconds);
    line(ink, { x: x + 20, y: y - 150 }, { x: 1980, y: -60 }, 7, '#55524a');
    ink.strokeStyle = ANA.coat;
    ink.lineCap = 'round';
    ink.lineWidth = 150;
    ink.beginPath();
    ink.moveTo(420, HEIGHT + 120);
    ink.lineTo(x - 250, y + 130);
    ink.moveTo(1500, HEIGHT + 120);
    ink.lineTo(x + 250, y + 130);
    ink.stroke();
    ink.fillStyle = '#8a5b34';
    ink.fillRect(x - 330, y - 28, 660, 56);
    ink.fillStyle = '#a9733f';
    for (const side of [-1, 1]) {
      ink.beginPath();
      ink.ellipse(x + side * 165, y, 46, 230, 0, 0, 2 * Math.PI);
      ink.fill();
    }
    ink.fillStyle = '#d9c9a2';
    ink.fillRect(x - 150, y - 150, 300, 300);
    ink.strokeStyle = '#b7a478';
    ink.lineWidth = 5;
    for (let i = 0; i < 17; i++) {
      const u = ((i / 17 + seconds * 0.9) % 1) * 300 - 150;
      ink.beginPath();
      ink.moveTo(x - 150, y + u);
      ink.lineTo(x + 150, y + u * 0.96 - 10);
      ink.stroke();
    }
    ink.fillStyle = ANA.skin;
    for (const side of [-1, 1]) {
      for (let finger = 0; finger < 4; finger++) {
        ink.beginPath();
        ink.ellipse(x + side * (248 + finger * 4), y - 52 + finger * 44, 62, 25, side * 0.12, 0, 2 * Math.PI);
        ink.fill();
      }
    }
  },
};

const evening: FilmShot = {
  name: 'Evening, the last kite climbs',
  frames: 168,
  subject: (s) => ({ x: 640 + 62 * s + 40 * Math.sin(s * 1.2), y: 560 - 46 * s }),
  draw(ink, seconds) {
    sky(ink, EVENING, 720);
    ink.fillStyle = '#fbe3ae';
    ink.beginPath();
    ink.arc(1440, 640, 92, 0, 2 * Math.PI);
    ink.fill();
    clouds(ink, EVENING, seconds + 10, 8, 420);
    sea(ink, EVENING, seconds + 60, 720, 850);
    beach(ink, EVENING, seconds, 850);
    const place = evening.subject(seconds);
    const dusk: Dress = { coat: '#5a3f46', legs: '#39384a', skin: '#6d4a3f', hair: '#2a2330' };
    const hand = person(ink, { x: 430, y: 1030 }, 260, dusk, 0.5);
    person(ink, { x: 560, y: 1036 }, 190, { ...dusk, coat: '#48506a' }, 0.2);
    line(ink, hand, place, 2.4, '#3f3838');
    kite(ink, place, 240, GOLD, 0.3 + 0.14 * Math.sin(seconds * 1.8), seconds);
    dune(ink, EVENING, seconds, 1300, 2200, 210);
  },
};

/** The film, in order. */
export const SHOTS: readonly FilmShot[] = [wide, crossing, diving, apart, still, detail, evening];

/** Every shot with its first frame in the film. */
export function shotStarts(): { shot: FilmShot; start: number }[] {
  let start = 0;
  return SHOTS.map((shot) => {
    const entry = { shot, start };
    start += shot.frames;
    return entry;
  });
}
