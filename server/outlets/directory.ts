import { outletRoot } from '../../src/core/outlets/post-form';
import type { OutletConnection } from '../posting/outlet-connection';
import type { Secrets } from '../store/secrets';
import type { OutletsElsewhere } from './elsewhere';
import { describeOutlet } from './outlets';

/** Credentials of a server at an outlet's authorization server. */
export interface OutletClientId {
  id: string;
  secret: string;
}

/** An outlet that can be reached. */
export interface ReachableOutlet {
  way: OutletConnection;
  client: OutletClientId;
}

/** Makes the credentials of a server at a stand-in that it runs. */
export const createStandInClient = (secrets: Secrets, outlet: string): OutletClientId => ({
  id: 'gusset',
  secret: secrets.clientSecret(outlet),
});

/** Knows how each outlet is reached: at its stand-in on this server, or where the person who runs it says that it is. */
export class OutletDirectory {
  constructor(
    /** Outlets that have a stand-in here. */
    private readonly standIns: ReadonlySet<string>,
    private readonly elsewhere: OutletsElsewhere,
    private readonly secrets: Secrets,
  ) {}

  /** Finds an outlet. @param origin that this server can be called by. @returns null for one that is nowhere. */
  find(outlet: string, origin: string): ReachableOutlet | null {
    const { openWay } = describeOutlet(outlet);
    const other = Object.hasOwn(this.elsewhere, outlet) ? this.elsewhere[outlet] : undefined;
    if (other) return { way: openWay({ root: other.root, pagesRoot: other.root }), client: other.client };
    if (!this.standIns.has(outlet)) return null;
    const pagesRoot = outletRoot(outlet);
    return {
      way: openWay({ root: `${origin}${pagesRoot}`, pagesRoot }),
      client: createStandInClient(this.secrets, outlet),
    };
  }
}
