import { toRateChange } from '@core/job/retime';
import { Button } from 'react-native-paper';
import { listFoundInMaster, SURE } from '@core/diagnosis/found-edges';
import { percent } from '@core/figures/figures';
import { findSource } from '@core/job/job';
import type { Master } from '@core/master/master';
import { NO_REPAIRS } from '@core/master/repairs';
import { type PictureRect, WHOLE_RECT } from '@core/picture/size';
import { dispatch } from '@state/job';
import { selectPass, usePasses } from '@state/master';
import { useJob } from '../job/job-context';
import { Notice } from '../parts/notice';
import { Body } from '../parts/words';
import { EdgesPicture } from './edges-picture';

/** Asks of a master whether edges that were found, and not taken, are bars or picture. */
export function EdgeQuestion({ master }: { master: Master }) {
  const job = useJob();
  const pass = usePasses((all) => selectPass(all[master.fingerprint]));
  const source = findSource(job, master.id);
  const repairs = job.edit.repairs[master.id] ?? NO_REPAIRS;
  const found = pass && listFoundInMaster(pass, source);
  if (!found || repairs.live !== null) return null;
  const answer = (live: PictureRect) => () => {
    const rates = toRateChange(source, source);
    dispatch(job.id, { type: 'set-repairs', master: master.id, repairs: { ...repairs, live }, rates });
  };
  const sure = pass.liveConfidence >= SURE;
  return (
    <Notice
      standing="stop"
      title="Are these edges bars?"
      actions={
        <>
          <Button mode="contained" onPress={answer(found)}>
            Bars: cut them off
          </Button>
          <Button mode="outlined" onPress={answer(WHOLE_RECT)}>
            They are part of the picture
          </Button>
        </>
      }
    >
      <Body>
        {`${master.fileName} has dark edges (${percent(pass.liveConfidence)} sure that they are bars). `}
        {sure ? 'You undid their repair. ' : ''}
        The export waits for your answer.
      </Body>
      <EdgesPicture source={source} live={found} />
    </Notice>
  );
}
