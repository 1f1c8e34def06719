import { StyleSheet, View } from 'react-native';
import type { Proof } from '@core/proof/proof-record';
import { Mark } from '../parts/mark';
import { Figures, Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

/** Table of what reading the finished file back showed, fact by fact. */
export function ProofTable({ proof }: { proof: Proof }) {
  const { left, top, right, bottom } = proof.borders;
  const bare = left + top + right + bottom === 0;
  const borders = bare ? 'none' : `left ${left}, top ${top}, right ${right}, bottom ${bottom} px`;
  return (
    <View role="table" aria-label="Read back" style={styles.table}>
      <View style={styles.head}>
        <Mark standing={proof.pass ? 'pass' : 'stop'} size={20} />
        <Strong>{proof.pass ? 'Read back: as asked' : 'Read back: not as asked'}</Strong>
      </View>
      {proof.facts.map((fact) => (
        <Row
          key={fact.what}
          what={fact.what}
          ok={fact.ok}
          found={fact.ok ? fact.found : `${fact.found}, asked ${fact.asked}`}
        />
      ))}
      <Row what={`Black borders in ${proof.framesSearched} decoded frames`} ok={bare} found={borders} />
    </View>
  );
}

function Row({ what, ok, found }: { what: string; ok: boolean; found: string }) {
  return (
    <View role="row" aria-label={`${what}: ${found}, ${ok ? 'as asked' : 'not as asked'}`} style={styles.row}>
      <Mark standing={ok ? 'pass' : 'stop'} size={16} />
      <Soft style={styles.what}>{what}</Soft>
      <Figures style={styles.found}>{found}</Figures>
    </View>
  );
}

const styles = StyleSheet.create({
  table: { gap: space.xs },
  head: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  row: {
    flexDirection: 'row',
    gap: space.s,
    alignItems: 'center',
    borderTopWidth: 1,
    borderColor: colours.hairline,
    paddingTop: space.xs,
  },
  what: { flex: 1 },
  found: { flex: 1.4, fontSize: 13, textAlign: 'right' },
});
