import type { Audience } from '../../outlets/audience';
import { joinAlternatives } from '../../outlets/limits/limit';
import { postRule, outcome } from '../rule';

interface AudienceValues {
  audience: Audience;
  taken: string;
}
const figures = ({ audience, taken }: AudienceValues): string => `${audience}; asked ${taken}`;

/** Who may see the post, among those whom the outlet knows. */
export const audienceRule = postRule({
  name: 'Audience',
  reads: ['audience', 'target'],
  outlet: true,
  outcomes: {
    taken: outcome<AudienceValues>(({ audience }) => `The post is ${audience}.`, figures),
    unknown: outcome<AudienceValues>(
      ({ audience, taken }, { label }) => `Posts on ${label} can be ${taken}, not ${audience}.`,
      figures,
    ),
  },
  check({ audience, target }) {
    const { audiences } = target.placement;
    const values = { audience, taken: joinAlternatives(audiences) };
    if (audiences.includes(audience)) return { severity: 'pass', code: 'taken', values };
    const [first] = audiences;
    if (!first) return { severity: 'stop', code: 'unknown', values };
    return {
      severity: 'stop',
      code: 'unknown',
      values,
      fix: { fix: 'set-audience', values: { audience: first, placement: target.key } },
    };
  },
});
