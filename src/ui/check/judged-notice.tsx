import { useEffect } from 'react';
import { Button } from 'react-native-paper';
import { sheetChanges } from '@core/outlets/compare';
import { listTargets } from '@core/outlets/outlets';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { toSheetMark } from '@core/outlets/sheet-mark';
import { markJudged, sheetVersions, useSheets } from '@state/job';
import { useJob } from '../job/job-context';
import { Notice } from '../parts/notice';

/** The sheets that judge some canvas of the job. */
function useJudges(): RuleSheet[] {
  const { edit } = useJob();
  const { sheets } = useSheets();
  const outlets = new Set(
    edit.clips.flatMap(({ canvases }) =>
      canvases.flatMap((canvas) => listTargets(sheets, canvas).map(({ sheet }) => sheet.outlet)),
    ),
  );
  return sheets.filter(({ outlet }) => outlets.has(outlet));
}

/** Says where the rules are no longer those that the job was last judged by, until a person has seen it. */
export function JudgedNotice() {
  const { id, judged = {} } = useJob();
  const { shelf } = useSheets();
  const judges = useJudges();
  const fresh = judges.filter(({ outlet }) => judged[outlet] === undefined);
  const unmarked = fresh.map(({ outlet }) => outlet).join();
  useEffect(() => {
    if (unmarked !== '') markJudged(id, fresh);
    // Each outlet is marked once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, unmarked]);
  const changed = judges.filter((sheet) => {
    const mark = judged[sheet.outlet];
    return mark !== undefined && mark.version !== toSheetMark(sheet).version;
  });
  return changed.map((sheet) => {
    const { outlet, name, date } = sheet;
    const mark = judged[outlet];
    const old = sheetVersions(shelf, outlet).find(
      (version) => toSheetMark(version).version === mark?.version,
    );
    const places = old ? sheetChanges(old, sheet) : [];
    return (
      <Notice
        key={outlet}
        standing="note"
        title={`The rules of ${name} changed since this job was last judged.`}
        actions={<Button onPress={() => markJudged(id, [sheet])}>Seen</Button>}
      >
        {`Then they were dated ${mark?.date}; now they are dated ${date}. ` +
          (places.length > 0
            ? places.map(({ place, before, after }) => `${place}: ${after}, before ${before}`).join('; ') +
              '.'
            : 'The findings below follow the current rules.')}
      </Notice>
    );
  });
}
