import { activeCanvas } from '@core/job/clip';
import { exportPreset, isOutdated } from '@core/job/export-preset';
import { canvasLabel } from '@core/outlets/outlets';
import { exportPresets } from '@state/job';
import { useClip } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { NamedList } from '../parts/named-list';
import { useEncoding } from './use-encoding';

/** Ways to make files that a person named: taken, kept, and handed on. */
export function ExportPresets() {
  const canvas = activeCanvas(useClip());
  const sheets = useRuleSheets();
  const { encoding, put } = useEncoding();
  return (
    <NamedList
      store={exportPresets}
      one="export preset"
      many="export presets"
      detail={(preset) =>
        isOutdated(preset, sheets)
          ? `For ${canvasLabel(sheets, preset)}. Its rule sheet has changed since: look it through.`
          : `For ${canvasLabel(sheets, preset)}.`
      }
      take={{ label: 'Use', act: (preset) => put(preset.encoding) }}
      onSave={(name) => exportPresets.save(exportPreset(name, canvas, encoding, sheets))}
    />
  );
}
