import { formatCount } from '../../figures/figures';
import { allZones, type Zone } from '../../outlets/placement';
import type { CanvasRect } from '../../picture/size';
import { exportRule, outcome } from '../rule';

interface CoveredValues {
  zone: string;
  blocks: number;
}

/** Words on the picture lie on the canvas, and clear of what the outlet itself puts on it. */
export const wordsClearRule = exportRule({
  name: 'Words in view',
  reads: ['plan', 'target'],
  outcomes: {
    none: outcome<object>(
      () => 'There are no words on the picture.',
      () => 'no words',
    ),
    clear: outcome<object>(
      () => 'All words lie on the canvas, clear of overlay zones.',
      () => 'clear',
    ),
    outside: outcome<{ text: string }>(
      ({ text }) => `“${text}” reaches past the edge of the canvas. Move its block inwards.`,
      () => 'past the edge',
    ),
    covered: outcome<CoveredValues>(
      ({ zone, blocks }, { label }) =>
        `${label} puts "${zone}" over ${formatCount(blocks, 'piece')} of text. Move ${blocks === 1 ? 'it' : 'them'} on this canvas.`,
      ({ zone, blocks }) => `${zone}, ${formatCount(blocks, 'piece')}`,
    ),
  },
  check({ plan, target }) {
    const words = plan.overlays.filter(({ art }) => art.text !== '');
    if (words.length === 0) return { severity: 'pass', code: 'none', values: {} };
    const { width, height } = plan;
    const out = words.find(({ art: { box } }) => {
      return box.x < 0 || box.y < 0 || box.x + box.width > width || box.y + box.height > height;
    });
    if (out) {
      const text = out.art.text.replaceAll('\n', ' ').slice(0, 40);
      return { severity: 'warn', code: 'outside', values: { text }, frame: out.from };
    }
    const covered = allZones(target.placement)
      .map((zone) => ({ zone, under: words.filter(({ art }) => meet(zone, art.box, plan)) }))
      .filter(({ under }) => under.length > 0)
      .sort((a, b) => b.under.length - a.under.length);
    const [worst] = covered;
    if (!worst) return { severity: 'pass', code: 'clear', values: {} };
    const blocks = new Set(worst.under.map(({ art }) => art.text)).size;
    const values = { zone: worst.zone.name, blocks };
    return { severity: 'warn', code: 'covered', values, frame: worst.under[0]?.from };
  },
});

/** Tells whether a zone overlaps a box by more than its rim. */
function meet(zone: Zone, box: CanvasRect, canvas: { width: number; height: number }): boolean {
  const across =
    Math.min(box.x + box.width, (zone.x + zone.width) * canvas.width) -
    Math.max(box.x, zone.x * canvas.width);
  const down =
    Math.min(box.y + box.height, (zone.y + zone.height) * canvas.height) -
    Math.max(box.y, zone.y * canvas.height);
  return across > 1 && down > 1;
}
