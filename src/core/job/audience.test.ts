import { checkPost } from '../check/findings';
import { fixCommand } from '../check/fixes';
import { AUDIENCES } from '../outlets/audience';
import { listPlacements } from '../outlets/outlets';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { chosenAudience, findPlacementByChoice, withAudience } from './audience';
import { changeCanvas } from './canvases';
import { applyCommand } from './commands/commands';
import { activeClip, type Edit } from './job';
import { postWords } from './post-words';
import { choose, testJob } from './test-job';

const placements = listPlacements(SHIPPED_SHEETS);
const pairs = placements.flatMap((a) => placements.filter((b) => b !== a).map((b) => [a, b] as const));

/** A clip with one canvas for two placements. */
function editFor(first: string, second: string): Edit {
  const edit = applyCommand(testJob().edit, choose(first));
  const also = changeCanvas(activeClip(edit), 'canvas-1', { also: [second] });
  return applyCommand(edit, { type: 'set-canvases', act: 'size', ...also });
}

describe('who may see a clip', () => {
  it('is chosen for each of two placements of one canvas by its fix, and neither undoes the other', () => {
    for (const [first, second] of pairs) {
      for (const begin of AUDIENCES) {
        let edit = applyCommand(editFor(first.key, second.key), { type: 'set-audience', audience: begin });
        const stops = () =>
          [first, second].flatMap((target) => {
            const clip = activeClip(edit);
            const words = postWords(clip, target.sheet.outlet);
            const audience = chosenAudience(clip, target.key);
            return checkPost({ words, audience, requiredTags: [], target }).filter(
              ({ rule, severity }) => rule === 'audience' && severity === 'stop',
            );
          });
        for (let round = 0; round < 2; round++) {
          const [fix] = stops().flatMap((finding) => ('fix' in finding && finding.fix ? [finding.fix] : []));
          if (fix) edit = applyCommand(edit, fixCommand(fix));
        }
        expect(stops()).toEqual([]);
      }
    }
  });

  it('is chosen for all placements where all know the audience, and for one that has its own alone', () => {
    const clip = activeClip(editFor('verrow/short', 'tesselle/portrait'));
    expect(findPlacementByChoice(clip, 'verrow/short', 'public', SHIPPED_SHEETS)).toBeUndefined();
    const own = withAudience(clip, 'unlisted', 'verrow/short');
    expect(findPlacementByChoice(own, 'verrow/short', 'public', SHIPPED_SHEETS)).toBe('verrow/short');
    expect(findPlacementByChoice(own, 'tesselle/portrait', 'public', SHIPPED_SHEETS)).toBeUndefined();
    expect(chosenAudience(own, 'verrow/short')).toBe('unlisted');
    expect(chosenAudience(own, 'tesselle/portrait')).toBe(clip.audience);
  });

  it('is chosen for one placement where another does not know the audience', () => {
    const knows = (audience: (typeof AUDIENCES)[number]) =>
      placements.filter(({ placement }) => placement.audiences.includes(audience));
    const [some] = knows('friends');
    const other = placements.find((target) => !knows('friends').includes(target));
    if (!some || !other) throw new Error('the shipped sheets know the same audiences');
    const clip = activeClip(editFor(some.key, other.key));
    expect(findPlacementByChoice(clip, some.key, 'friends', SHIPPED_SHEETS)).toBe(some.key);
  });
});
