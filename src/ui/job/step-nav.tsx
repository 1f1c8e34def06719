import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import { Link } from 'expo-router';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { colours, space } from '../theme/tokens';
import { Mark } from '../parts/mark';
import { Soft, Strong } from '../parts/words';
import type { JobStep, StepName } from '@core/steps/steps';

/** Width of one tooth of the torn edge, in pixels. */
const TOOTH = 10;

/** The torn edge on top of the ticket. */
function TornEdge() {
  const teeth = Array.from(
    { length: 60 },
    (_, i) => `L${i * TOOTH + TOOTH / 2} 0 L${(i + 1) * TOOTH} 6`,
  ).join(' ');
  return (
    <View aria-hidden style={styles.edge}>
      <Svg width={60 * TOOTH} height={7}>
        <Path d={`M0 6 ${teeth} L${60 * TOOTH} 7 L0 7 Z`} fill={colours.sheet} />
      </Svg>
    </View>
  );
}

interface Props {
  jobId: string;
  steps: readonly JobStep[];
  /** The step on screen, or undefined on the sheet itself. */
  current?: StepName | undefined;
}

/** The work ticket: one row a step, with what is settled and what is missing. */
export function StepNav({ jobId, steps, current }: Props) {
  return (
    <View>
      <TornEdge />
      <View role="navigation" aria-label="Steps" style={styles.sheet}>
        {steps.map((step, i) => (
          <Link key={step.name} href={`/job/${jobId}/${step.name}`} asChild replace={current !== undefined}>
            <Pressable
              aria-label={`${step.title}: ${step.summary}`}
              aria-current={step.name === current ? 'page' : undefined}
              style={StyleSheet.flatten([
                styles.row,
                i > 0 && styles.stitch,
                step.name === current && styles.current,
              ])}
            >
              <Mark standing={step.standing} />
              <View style={styles.words}>
                <Strong>{`${step.title} `}</Strong>
                <Soft numberOfLines={2}>{step.summary}</Soft>
              </View>
              <MaterialCommunityIcons name="chevron-right" size={22} color={colours.softInk} />
            </Pressable>
          </Link>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  edge: { height: 7, overflow: 'hidden' },
  sheet: {
    backgroundColor: colours.sheet,
    borderWidth: 1,
    borderTopWidth: 0,
    borderColor: colours.hairline,
    borderBottomLeftRadius: 6,
    borderBottomRightRadius: 6,
  },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.m, padding: space.m, minHeight: 56 },
  stitch: { borderTopWidth: 1, borderStyle: 'dashed', borderColor: colours.hairline },
  current: { backgroundColor: colours.woadWash },
  words: { flex: 1 },
});
