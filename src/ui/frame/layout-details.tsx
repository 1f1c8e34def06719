import { type ComponentProps } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import {
  BAND_COLOURS,
  CORNERS,
  type Layout,
  LAYOUT_BOUNDS,
  type LayoutNumber,
  LEAST_PANE,
} from '@core/layout/layout';
import { clamp } from '@core/picture/size';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Tool } from '../parts/tool';
import { dividerMoved } from './divider-handles';
import { ToolRow } from '../parts/tool-row';
import { colours, TARGET } from '../theme/tokens';

interface Props {
  layout: Layout;
  setLayout: (change: Partial<Layout>, joins?: string) => void;
}

/** What can be set of the layout that is chosen. */
export function LayoutDetails({ layout, setLayout }: Props) {
  switch (layout.kind) {
    case 'single':
      return null;
    case 'stacked':
      return (
        <>
          <Choice
            label="Stacked panes"
            value={layout.stacked.panes === 2 ? '2' : '3'}
            options={[
              { value: '2', label: 'Two panes' },
              { value: '3', label: 'Three panes' },
            ]}
            onChange={(panes) => setLayout({ stacked: stackOf(panes === '2' ? 2 : 3) })}
          />
          {layout.stacked.dividers.slice(0, layout.stacked.panes - 1).map((place, i) => (
            <NumberField
              key={i}
              label={`Divider ${i + 1}`}
              value={String(Math.round(place * 1000) / 10)}
              unit="% from above"
              least={100 * LEAST_PANE}
              most={100 * (1 - LEAST_PANE)}
              onTake={(share) => setLayout(dividerMoved(layout, i, share / 100))}
            />
          ))}
        </>
      );
    case 'inset':
      return <InsetDetails layout={layout} setLayout={setLayout} />;
    case 'banded':
      return <BandDetails layout={layout} setLayout={setLayout} />;
    case 'backdrop':
      return (
        <ToolRow>
          {BLUR_STEPS.map((step) => (
            <StepTool
              key={step.label}
              step={step}
              value={layout.backdrop.blur}
              onStep={(blur) => setLayout({ backdrop: { blur } }, 'blur')}
            />
          ))}
        </ToolRow>
      );
    case 'turned':
      return (
        <Choice
          label="Turned"
          value={layout.turned.clockwise ? 'right' : 'left'}
          options={[
            { value: 'right', label: 'To the right' },
            { value: 'left', label: 'To the left' },
          ]}
          onChange={(way) => setLayout({ turned: { clockwise: way === 'right' } })}
        />
      );
  }
}

/** Panes of even height. */
const stackOf = (panes: 2 | 3): Layout['stacked'] => ({
  panes,
  dividers: panes === 2 ? [0.5, 0.75] : [1 / 3, 2 / 3],
});

/** A tool that changes a number of the layout by a step, as far as its bounds. */
interface Stepper {
  icon: ComponentProps<typeof Tool>['icon'];
  label: string;
  words: string;
  of: LayoutNumber;
  next: (value: number) => number;
}

const within = (value: number, of: LayoutNumber) => {
  const [least, most] = LAYOUT_BOUNDS[of];
  return clamp(value, least, most);
};
const plus = (by: number) => (value: number) => value + by;
const times = (by: number) => (value: number) => value * by;

const BLUR_STEPS: readonly Stepper[] = [
  { of: 'blur', icon: 'blur', label: 'Softer backdrop', words: 'Softer', next: plus(0.02) },
  { of: 'blur', icon: 'blur-off', label: 'Sharper backdrop', words: 'Sharper', next: plus(-0.02) },
];
const INSET_STEPS: readonly (Stepper & { of: Exclude<keyof Layout['inset'], 'corner'> })[] = [
  { of: 'width', icon: 'plus', label: 'Larger inset', words: 'Larger', next: plus(0.05) },
  { of: 'width', icon: 'minus', label: 'Smaller inset', words: 'Smaller', next: plus(-0.05) },
  { of: 'radius', icon: 'rounded-corner', label: 'Rounder corners', words: 'Rounder', next: plus(0.1) },
  { of: 'radius', icon: 'square-outline', label: 'Squarer corners', words: 'Squarer', next: plus(-0.1) },
  {
    of: 'margin',
    icon: 'arrow-collapse-all',
    label: 'Nearer to the edge',
    words: 'Nearer',
    next: plus(-0.02),
  },
  {
    of: 'margin',
    icon: 'arrow-expand-all',
    label: 'Further from the edge',
    words: 'Further',
    next: plus(0.02),
  },
  { of: 'aspect', icon: 'crop-landscape', label: 'Wider inset', words: 'Wider', next: times(1.125) },
  { of: 'aspect', icon: 'crop-portrait', label: 'Taller inset', words: 'Taller', next: times(1 / 1.125) },
];

function StepTool({ step, value, onStep }: { step: Stepper; value: number; onStep: (next: number) => void }) {
  const next = within(step.next(value), step.of);
  return (
    <Tool
      icon={step.icon}
      label={step.label}
      words={step.words}
      disabled={next === value}
      onPress={() => onStep(next)}
    />
  );
}

function InsetDetails({ layout: { inset }, setLayout }: Props) {
  const next = CORNERS[(CORNERS.indexOf(inset.corner) + 1) % CORNERS.length] ?? CORNERS[0];
  return (
    <ToolRow>
      <Tool
        icon="arrow-top-left-bottom-right"
        label="Next corner"
        words="Corner"
        onPress={() => setLayout({ inset: { ...inset, corner: next } })}
      />
      {INSET_STEPS.map((step) => (
        <StepTool
          key={step.label}
          step={step}
          value={inset[step.of]}
          onStep={(value) => setLayout({ inset: { ...inset, [step.of]: value } }, step.of)}
        />
      ))}
    </ToolRow>
  );
}

function BandDetails({ layout: { banded }, setLayout }: Props) {
  const place = (by: number) =>
    setLayout({ banded: { ...banded, place: within(banded.place + by, 'place') } }, 'band');
  return (
    <ToolRow>
      <Tool icon="arrow-up" label="Picture up" words="Up" onPress={() => place(-0.05)} />
      <Tool icon="arrow-down" label="Picture down" words="Down" onPress={() => place(0.05)} />
      {BAND_COLOURS.map((colour, i) => (
        <Pressable
          key={colour}
          role="radio"
          aria-label={`Band colour ${i + 1}`}
          aria-checked={banded.colour === colour}
          onPress={() => setLayout({ banded: { ...banded, colour } })}
          style={[styles.colour, { backgroundColor: colour }, banded.colour === colour && styles.colourOn]}
        />
      ))}
    </ToolRow>
  );
}

const styles = StyleSheet.create({
  colour: { width: TARGET, height: TARGET, borderRadius: 6, borderWidth: 1, borderColor: colours.edge },
  colourOn: { borderWidth: 4, borderColor: colours.woad },
});
