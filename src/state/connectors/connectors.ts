import type { Connector } from './connector';
import { standInConnector } from './stand-in';

/** How clips come to each outlet: a line each. */
const CONNECTORS: Readonly<Record<string, Connector>> = {
  verrow: standInConnector,
  tesselle: standInConnector,
};

/** @throws RangeError for an outlet that nothing is sent to. */
export function connectorOf(outlet: string): Connector {
  const connector = CONNECTORS[outlet];
  if (!connector) throw new RangeError(`nothing is sent to ${outlet}`);
  return connector;
}
