/** The film's own paint box: sky, sea, sand, people and kites, drawn from shapes alone. */

export type Ink = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

export const WIDTH = 1920;
export const HEIGHT = 1080;

export interface Point {
  x: number;
  y: number;
}

/** A repeatable pseudo-random number 0…1 for a whole number (an integer hash by mixing and multiplying). */
export function chance(n: number): number {
  let h = Math.imul(n ^ 0x9e3779b9, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

/** Light of a scene, from the top of the sky to the near sand. */
export interface Light {
  sky: [string, string, string];
  cloud: string;
  sea: [string, string, string];
  foam: string;
  sand: [string, string, string];
  grass: string;
}

export const NOON: Light = {
  sky: ['#7fb6d1', '#b4d7de', '#f2ead2'],
  cloud: '#fbf7ea',
  sea: ['#8fb9b8', '#3f8a94', '#2c6f7e'],
  foam: '#eef3ea',
  sand: ['#ecd9ae', '#dfc289', '#cfab6c'],
  grass: '#8f9d58',
};

export const EVENING: Light = {
  sky: ['#5f7fa3', '#d9a98c', '#f6d9a4'],
  cloud: '#f3cfae',
  sea: ['#b59a8c', '#5d7c8a', '#3f6175'],
  foam: '#f7e3c4',
  sand: ['#d8b58a', '#bf9468', '#a07850'],
  grass: '#6f7446',
};

export function sky(ink: Ink, light: Light, horizon: number): void {
  const wash = ink.createLinearGradient(0, 0, 0, horizon);
  light.sky.forEach((colour, i) => wash.addColorStop(i / 2, colour));
  ink.fillStyle = wash;
  ink.fillRect(0, 0, WIDTH, horizon + 2);
}

/** Long soft clouds that drift; `depth` 0 is far and slow. */
export function clouds(ink: Ink, light: Light, seconds: number, count: number, low: number): void {
  ink.fillStyle = light.cloud;
  for (let i = 0; i < count; i++) {
    const depth = 0.4 + 0.6 * chance(i * 7 + 1);
    const span = 220 + 360 * chance(i * 7 + 2);
    const speed = 14 * depth;
    const travel = WIDTH + 2 * span;
    const x = ((chance(i * 7 + 3) * travel + seconds * speed) % travel) - span;
    const y = 50 + chance(i * 7 + 4) * low;
    ink.globalAlpha = 0.35 + 0.4 * depth;
    for (let puff = 0; puff < 4; puff++) {
      const left = x + span * (puff / 4 - 0.3);
      const rise = 16 + 26 * chance(i * 31 + puff);
      ink.beginPath();
      ink.ellipse(left, y - rise * 0.25 * puff * (3 - puff), span * 0.32, rise, 0, 0, 2 * Math.PI);
      ink.fill();
    }
  }
  ink.globalAlpha = 1;
}

/** The sea from the horizon down to the shore, in three bands with moving crests and glints. */
export function sea(ink: Ink, light: Light, seconds: number, horizon: number, shore: number): void {
  const depth = shore - horizon;
  light.sea.forEach((colour, band) => {
    const top = horizon + (depth * band) / 3;
    const wave = 2 + band * 5;
    ink.fillStyle = colour;
    ink.beginPath();
    ink.moveTo(0, shore + 40);
    for (let x = 0; x <= WIDTH; x += 24) {
      const swell = Math.sin(x / (150 + 70 * band) + seconds * (0.7 + 0.25 * band) + band * 2);
      const chop = Math.sin(x / 57 - seconds * 1.3 + band);
      ink.lineTo(x, band === 0 ? horizon : top + wave * swell + 0.3 * wave * chop);
    }
    ink.lineTo(WIDTH, shore + 40);
    ink.fill();
  });
  ink.strokeStyle = light.foam;
  ink.lineCap = 'round';
  for (let i = 0; i < 46; i++) {
    const near = chance(i * 5 + 11);
    const y = horizon + 12 + near * (depth - 30);
    const x = ((chance(i * 5 + 12) * WIDTH + seconds * (8 + 26 * near)) % (WIDTH + 200)) - 100;
    const length = 18 + 70 * near;
    ink.globalAlpha = 0.16 + 0.3 * Math.abs(Math.sin(seconds * 0.9 + i));
    ink.lineWidth = 1.5 + 2.5 * near;
    ink.beginPath();
    ink.moveTo(x, y);
    ink.quadraticCurveTo(x + length / 2, y - 3 - 4 * near, x + length, y);
    ink.stroke();
  }
  ink.globalAlpha = 1;
}

/** Wet edge, dry sand and near sand; the water's edge runs up and back. */
export function beach(ink: Ink, light: Light, seconds: number, shore: number): void {
  const run = 10 * Math.sin(seconds * 0.8);
  const edge = (lift: number) => {
    ink.beginPath();
    ink.moveTo(0, HEIGHT);
    for (let x = 0; x <= WIDTH; x += 24) {
      ink.lineTo(x, shore + lift + 12 * Math.sin(x / 260 + 0.4) + 5 * Math.sin(x / 90 + seconds * 0.5));
    }
    ink.lineTo(WIDTH, HEIGHT);
    ink.fill();
  };
  ink.fillStyle = light.foam;
  edge(run - 7);
  light.sand.forEach((colour, i) => {
    ink.fillStyle = colour;
    edge(i === 0 ? run : 26 + i * ((HEIGHT - shore) / 4));
  });
}

/** A grassy dune from one side of the picture; blades lean in the wind. */
export function dune(
  ink: Ink,
  light: Light,
  seconds: number,
  from: number,
  to: number,
  height: number,
): void {
  ink.fillStyle = light.grass;
  ink.beginPath();
  ink.moveTo(from, HEIGHT);
  ink.bezierCurveTo(from, HEIGHT - height, (from + to) / 2, HEIGHT - height * 1.15, to, HEIGHT);
  ink.fill();
  ink.strokeStyle = light.grass;
  ink.lineWidth = 4;
  for (let i = 0; i < 60; i++) {
    const u = 0.04 + 0.92 * chance(i + 400);
    const x = from + (to - from) * u;
    const y = HEIGHT - height * 3 * u * (1 - u) * (0.82 + 0.4 * (1 - u));
    const blade = 26 + 40 * chance(i + 500);
    const lean = 16 + 9 * Math.sin(seconds * 2.1 + i);
    ink.beginPath();
    ink.moveTo(x, y + 8);
    ink.quadraticCurveTo(x + lean * 0.2, y - blade * 0.6, x + lean, y - blade);
    ink.stroke();
  }
}

export interface Dress {
  coat: string;
  legs: string;
  skin: string;
  hair: string;
}

/** A standing person; `reach` is the angle of the raised arm, in radians from straight up. Returns the hand. */
export function person(ink: Ink, feet: Point, size: number, dress: Dress, reach: number): Point {
  const { x, y } = feet;
  ink.lineCap = 'round';
  ink.strokeStyle = dress.legs;
  ink.lineWidth = size * 0.09;
  for (const side of [-1, 1]) {
    ink.beginPath();
    ink.moveTo(x, y - size * 0.46);
    ink.lineTo(x + side * size * 0.09, y);
    ink.stroke();
  }
  ink.fillStyle = dress.coat;
  ink.beginPath();
  ink.moveTo(x - size * 0.09, y - size * 0.8);
  ink.quadraticCurveTo(x, y - size * 0.86, x + size * 0.09, y - size * 0.8);
  ink.lineTo(x + size * 0.15, y - size * 0.38);
  ink.quadraticCurveTo(x, y - size * 0.33, x - size * 0.15, y - size * 0.38);
  ink.fill();
  const hand = {
    x: x + Math.sin(reach) * size * 0.36,
    y: y - size * 0.76 - Math.cos(reach) * size * 0.36,
  };
  ink.strokeStyle = dress.coat;
  ink.lineWidth = size * 0.075;
  ink.beginPath();
  ink.moveTo(x + Math.sign(reach) * size * 0.06, y - size * 0.76);
  ink.lineTo(hand.x, hand.y);
  ink.moveTo(x - Math.sign(reach) * size * 0.08, y - size * 0.76);
  ink.lineTo(x - Math.sign(reach) * size * 0.17, y - size * 0.5);
  ink.stroke();
  ink.fillStyle = dress.skin;
  ink.beginPath();
  ink.arc(x, y - size * 0.93, size * 0.085, 0, 2 * Math.PI);
  ink.arc(hand.x, hand.y, size * 0.042, 0, 2 * Math.PI);
  ink.fill();
  ink.fillStyle = dress.hair;
  ink.beginPath();
  ink.arc(x, y - size * 0.95, size * 0.09, Math.PI, 2 * Math.PI);
  ink.fill();
  return hand;
}

export interface KiteCloth {
  light: string;
  dark: string;
  spar: string;
  tail: string;
}

export const RED: KiteCloth = { light: '#e2583e', dark: '#b23a2e', spar: '#f1bf57', tail: '#c8452f' };
export const BLUE: KiteCloth = { light: '#3f7fb2', dark: '#275b88', spar: '#f3ead4', tail: '#2f6b9c' };
export const GOLD: KiteCloth = { light: '#e9b64a', dark: '#c98a2b', spar: '#8a4f2b', tail: '#d79a34' };
export const PLUM: KiteCloth = { light: '#8c5a8f', dark: '#6b3f73', spar: '#efe2c8', tail: '#7d4a82' };
export const FERN: KiteCloth = { light: '#7f9a45', dark: '#5f7530', spar: '#f2e8c9', tail: '#6f8a3a' };

/** A four-panelled kite with a rippling tail; `lean` turns it clockwise in radians. */
export function kite(
  ink: Ink,
  place: Point,
  size: number,
  cloth: KiteCloth,
  lean: number,
  seconds: number,
): void {
  ink.save();
  ink.translate(place.x, place.y);
  ink.rotate(lean);
  ink.strokeStyle = cloth.tail;
  ink.lineCap = 'round';
  ink.lineWidth = size * 0.035;
  ink.beginPath();
  ink.moveTo(0, size * 0.62);
  const knots: Point[] = [];
  for (let i = 1; i <= 22; i++) {
    const u = i / 22;
    const ripple = Math.sin(u * 9 - seconds * 5.2) * size * 0.16 * u;
    const point = { x: ripple - size * 0.25 * u * u, y: size * (0.62 + 1.15 * u) };
    ink.lineTo(point.x, point.y);
    if (i % 5 === 0) knots.push(point);
  }
  ink.stroke();
  ink.fillStyle = cloth.spar;
  for (const knot of knots) {
    ink.beginPath();
    ink.moveTo(knot.x, knot.y);
    ink.lineTo(knot.x - size * 0.1, knot.y - size * 0.055);
    ink.lineTo(knot.x - size * 0.1, knot.y + size * 0.055);
    ink.moveTo(knot.x, knot.y);
    ink.lineTo(knot.x + size * 0.1, knot.y - size * 0.055);
    ink.lineTo(knot.x + size * 0.1, knot.y + size * 0.055);
    ink.fill();
  }
  const top = { x: 0, y: -size * 0.55 };
  const right = { x: size * 0.4, y: -size * 0.12 };
  const foot = { x: 0, y: size * 0.62 };
  const left = { x: -size * 0.4, y: -size * 0.12 };
  const heart = { x: 0, y: -size * 0.12 };
  const panels: [Point, Point, string][] = [
    [top, right, cloth.spar],
    [right, foot, cloth.light],
    [foot, left, cloth.dark],
    [left, top, cloth.light],
  ];
  for (const [a, b, colour] of panels) {
    ink.fillStyle = colour;
    ink.beginPath();
    ink.moveTo(heart.x, heart.y);
    ink.lineTo(a.x, a.y);
    ink.lineTo(b.x, b.y);
    ink.fill();
  }
  ink.restore();
}

/** The line from a hand to a kite, sagging a little. */
export function line(ink: Ink, from: Point, to: Point, weight: number, colour = '#4b4a45'): void {
  ink.strokeStyle = colour;
  ink.lineWidth = weight;
  ink.beginPath();
  ink.moveTo(from.x, from.y);
  ink.quadraticCurveTo((from.x + to.x) / 2 + 20, (from.y + to.y) / 2 + 60, to.x, to.y);
  ink.stroke();
}
