import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { get, useForm, useWatch } from 'react-hook-form';
import type { z } from 'zod';
import { NAME_FIELD, PLACEMENT_FORM, SHEET_FIELDS } from '@core/outlets/placement-form';
import { type RuleSheet, ruleSheetSchema } from '@core/outlets/rule-sheet';
import { useNow } from '../parts/use-now';
import { Choice } from '../parts/choice';
import { Tool } from '../parts/tool';
import { Heading, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import { Fold } from '../parts/fold';
import { GroupFields } from './group-fields';
import { LadderFields } from './ladder-fields';
import { SizeFields } from './size-fields';
import { useFormHistory } from './use-form-history';
import { ValueField } from './value-field';
import { ZoneFields } from './zone-fields';

/** State that a form of a sheet reports to its page. */
interface SheetDraft {
  sheet: RuleSheet;
  /** True when it differs from what it began with, and when it can be kept. */
  changed: boolean;
  valid: boolean;
  canUndo: boolean;
  undo(): void;
}

/** An id that no placement has. */
function freshId(sheet: RuleSheet): string {
  for (let n = 1; ; n++) {
    const id = `placement-${n}`;
    if (!sheet.placements.some((placement) => placement.id === id)) return id;
  }
}

/** The form of a rule sheet: its head, then each placement by sections. @param children the page around it. */
export function useSheetForm(begins: RuleSheet) {
  const form = useForm<RuleSheet>({
    // What is in the form is whole: nothing of it is left to a schema's defaults.
    resolver: zodResolver(ruleSheetSchema as z.ZodType<RuleSheet, RuleSheet>),
    defaultValues: structuredClone(begins),
    mode: 'onChange',
  });
  const history = useFormHistory(form);
  const sheet = useWatch({ control: form.control }) as RuleSheet;
  const { isDirty, isValid } = form.formState;
  const draft: SheetDraft = { sheet, changed: isDirty, valid: isValid, ...history };
  return { form, draft };
}

type Form = ReturnType<typeof useSheetForm>['form'];

export function SheetForm({ form }: { form: Form }) {
  const { control } = form;
  const [at, setAt] = useState(0);
  const placements = useWatch({ control, name: 'placements' });
  const { errors } = form.formState;
  const today = useNow().toISOString().slice(0, 10);
  const place = Math.min(at, placements.length - 1);
  const base = `placements.${place}`;
  const putPlacements = (next: RuleSheet['placements'], shown: number) => {
    form.setValue('placements', next, { shouldDirty: true, shouldValidate: true });
    setAt(shown);
  };
  const copy = () => {
    const from = placements[place];
    if (!from) return;
    const fresh = { ...structuredClone(from), id: freshId(form.getValues()), name: `${from.name} (copy)` };
    putPlacements([...placements, fresh], placements.length);
  };
  const wrong = (paths: readonly string[]) =>
    paths.some((path) => get(errors, `${base}.${path}`) !== undefined);
  return (
    <View style={styles.form}>
      <View style={styles.fields}>
        {SHEET_FIELDS.map((field) => (
          <ValueField key={field.path} control={control} name={field.path} field={field} />
        ))}
      </View>
      <Button
        style={styles.left}
        onPress={() => form.setValue('date', today, { shouldDirty: true, shouldValidate: true })}
      >
        Checked today
      </Button>
      <Heading>Placements</Heading>
      {placements.length > 1 && (
        <Choice
          label="Placement"
          value={String(place)}
          options={placements.map(({ name }, i) => ({ value: String(i), label: name }))}
          onChange={(next) => setAt(Number(next))}
        />
      )}
      <View key={placements[place]?.id} style={styles.form}>
        <View style={styles.fields}>
          <ValueField control={control} name={`${base}.name`} field={NAME_FIELD} />
        </View>
        <View style={styles.row}>
          <Button icon="content-copy" onPress={copy}>
            Copy this placement
          </Button>
          {placements.length > 1 && (
            <Tool
              icon="delete-outline"
              label="Remove this placement"
              words=""
              onPress={() =>
                putPlacements(
                  placements.filter((_, i) => i !== place),
                  0,
                )
              }
            />
          )}
        </View>
        <Fold title="Sizes" open wrong={wrong(['sizes'])}>
          <SizeFields control={control} index={place} />
        </Fold>
        {PLACEMENT_FORM.map(({ title, fields, groups }) => (
          <Fold
            key={title}
            title={title}
            open={title === 'Length'}
            wrong={wrong([...fields, ...groups].map(({ path }) => path))}
          >
            <View style={styles.fields}>
              {fields.map((field) => (
                <ValueField key={field.path} control={control} name={`${base}.${field.path}`} field={field} />
              ))}
            </View>
            {groups.map((group) => (
              <GroupFields key={group.path} control={control} name={`${base}.${group.path}`} group={group} />
            ))}
          </Fold>
        ))}
        <Fold title="Overlay zones" wrong={wrong(['zones'])}>
          <ZoneFields control={control} index={place} />
        </Fold>
        <Fold title="What it makes of a clip" wrong={wrong(['ladder'])}>
          <LadderFields control={control} index={place} />
        </Fold>
      </View>
      <Soft>Each value is judged as it is entered; a fold that holds a wrong one is marked.</Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.m },
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  left: { alignSelf: 'flex-start' },
});
