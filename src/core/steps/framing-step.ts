import { listShots } from '../cut/master-shots';
import { formatCount } from '../figures/figures';
import { activeClip, listSources } from '../job/job';
import { findFinding, type StepKind } from './step';

export const framingStep: StepKind = {
  title: 'Framing',
  stand({ job: { edit, masters }, findings }) {
    const { cut } = activeClip(edit);
    const shots = listSources({ edit, masters })
      .filter(({ id }) => cut.some((range) => range.master === id))
      .flatMap((source) => listShots(edit.shots, source));
    const framed = shots.filter((shot) => edit.framings.some((framing) => framing.shot === shot.id)).length;
    const summary = `${framed} of ${formatCount(shots.length, 'shot', 'shots')} framed`;
    return { summary, standing: findFinding(findings, 'coverage')?.severity ?? 'open' };
  },
};
