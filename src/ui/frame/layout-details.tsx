import { type ComponentProps } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import type { LayoutField } from '@core/layout/kinds/layout-kind';
import { chosenLayout, type Layout } from '@core/layout/layout';
import { Choice } from '../parts/choice';
import { NumberField } from '../parts/number-field';
import { Tool } from '../parts/tool';
import { ToolRow } from '../parts/tool-row';
import { colours, TARGET } from '../theme/tokens';

type LayoutChange = Partial<Layout>;
type SetLayout = (change: LayoutChange, joins?: string) => void;

/** Tells whether a field is small enough to stand in a row with others. */
const isTool = ({ type }: LayoutField<LayoutChange>): boolean => type === 'step' || type === 'colour';

/** Settings of the layout that is chosen. */
export function LayoutDetails({ layout, setLayout }: { layout: Layout; setLayout: SetLayout }) {
  const { fields } = chosenLayout(layout);
  const tools = fields.filter(isTool);
  return (
    <>
      {fields
        .filter((field) => !isTool(field))
        .map((field) => (
          <Field key={field.label} field={field} setLayout={setLayout} />
        ))}
      {tools.length > 0 && (
        <ToolRow>
          {tools.map((field) => (
            <Field key={field.label} field={field} setLayout={setLayout} />
          ))}
        </ToolRow>
      )}
    </>
  );
}

function Field({ field, setLayout }: { field: LayoutField<LayoutChange>; setLayout: SetLayout }) {
  switch (field.type) {
    case 'choice':
      return (
        <Choice
          label={field.label}
          value={field.value}
          options={field.options}
          onChange={(value) => {
            const chosen = field.options.find((option) => option.value === value);
            if (chosen) setLayout(chosen.settings);
          }}
        />
      );
    case 'number':
      return (
        <NumberField
          label={field.label}
          value={String(field.value)}
          unit={field.unit}
          least={field.min}
          most={field.max}
          onTake={(value) => setLayout(field.withValue(value))}
        />
      );
    case 'step':
      return (
        <Tool
          icon={field.icon as ComponentProps<typeof Tool>['icon']}
          label={field.label}
          words={field.words}
          disabled={field.settings === null}
          onPress={() => field.settings && setLayout(field.settings, field.joins)}
        />
      );
    case 'colour':
      return (
        <Pressable
          role="radio"
          aria-label={field.label}
          aria-checked={field.isChosen}
          onPress={() => setLayout(field.settings)}
          style={[styles.colour, { backgroundColor: field.colour }, field.isChosen && styles.colourOn]}
        />
      );
  }
}

const styles = StyleSheet.create({
  colour: { width: TARGET, height: TARGET, borderRadius: 6, borderWidth: 1, borderColor: colours.edge },
  colourOn: { borderWidth: 4, borderColor: colours.woad },
});
