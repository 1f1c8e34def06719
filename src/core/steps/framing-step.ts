import { shotsOf } from '../cut/master-shots';
import { activeClip, sourcesIn } from '../job/job';
import { count, findingOf, type StepKind } from './step';

export const framingStep: StepKind = {
  title: 'Framing',
  stand({ job: { edit, masters }, findings }) {
    const { cut } = activeClip(edit);
    const shots = sourcesIn({ edit, masters })
      .filter(({ id }) => cut.some((range) => range.master === id))
      .flatMap((source) => shotsOf(edit.shots, source));
    const framed = shots.filter((shot) => edit.framings.some((framing) => framing.shot === shot.id)).length;
    const summary = `${framed} of ${count(shots.length, 'shot', 'shots')} framed`;
    return { summary, standing: findingOf(findings, 'coverage')?.severity ?? 'open' };
  },
};
