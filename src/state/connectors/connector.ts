import type { PostAnswer, PostForm } from '@core/outlets/post-form';
import type { RuleSheet } from '@core/outlets/rule-sheet';

/** A file on its way to an outlet. */
interface Shipment {
  sheet: RuleSheet;
  file: File;
  /** The same again for the same file, so that an upload goes on where it broke. */
  key: string;
}

/** How clips come to an outlet: one file of this folder each. */
export interface Connector {
  /**
   * Sends a file, or what is missing of it.
   * @returns what the post names it by.
   * @throws TroubleError when it could not be sent, or `cancelled`.
   */
  upload(
    shipment: Shipment,
    onProgress: (sent: number, total: number) => void,
    signal: AbortSignal,
  ): Promise<string>;
  /** Posts what is up. Asking again for the same upload makes no second post. @throws TroubleError */
  post(sheet: RuleSheet, form: PostForm, signal: AbortSignal): Promise<PostAnswer>;
}
