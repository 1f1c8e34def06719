import { useState } from 'react';
import { rankSeverity } from '@core/check/check-board';
import type { Finding } from '@core/check/finding';

/**
 * Findings worst first, in the order in which they were when they came on screen: what is found follows a tap by a
 * moment, and nothing may move under the finger.
 * @param place what they are of: another place is put in order anew.
 */
export function useSteadyOrder(findings: readonly Finding[] | null, place: string): Finding[] {
  const [known, setKnown] = useState<{ place: string; order: string[] } | null>(null);
  if (!findings) return [];
  const placed = known?.place === place ? known : { place, order: orderIds(findings) };
  if (placed !== known) setKnown(placed);
  const at = ({ rule }: Finding) => {
    const index = placed.order.indexOf(rule);
    return index < 0 ? placed.order.length : index;
  };
  return [...findings].sort((a, b) => at(a) - at(b));
}

const orderIds = (findings: readonly Finding[]): string[] =>
  [...findings].sort((a, b) => rankSeverity(b.severity) - rankSeverity(a.severity)).map(({ rule }) => rule);
