import { postAnswerSchema, postsPath, uploadsPath } from '@core/outlets/post-form';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import { uploadFile } from '@media/send/upload';
import { askJson, type ServerName } from '../server';
import type { Connector } from './connector';

const serverOf = (sheet: RuleSheet): ServerName => ({ who: sheet.name, errand: 'post' });

/** The stand-ins that ship: resumable uploads, then one form. */
export const standInConnector: Connector = {
  upload({ sheet, file, key }, onProgress, signal) {
    return uploadFile(
      { endpoint: uploadsPath(sheet.outlet), ...serverOf(sheet), file, key },
      onProgress,
      signal,
    );
  },
  post(sheet, form, signal) {
    return askJson(serverOf(sheet), postsPath(sheet.outlet), postAnswerSchema, {
      method: 'POST',
      body: form,
      signal,
      long: true,
    });
  },
};
