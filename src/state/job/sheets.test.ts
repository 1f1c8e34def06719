import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import type { RuleSheet } from '@core/outlets/rule-sheet';
import {
  bringSheetBack,
  forgetLastChange,
  keepSheet,
  openSheets,
  listOwnRemovedSheets,
  removeSheet,
  sheetFile,
  readSheetOfFile,
  sheetsNow,
  sheetVersions,
  useSheets,
} from './sheets';
import { storage, useSettingTroubles } from '../store';

const [verrow] = SHIPPED_SHEETS as [RuleSheet];
const named = (name: string): RuleSheet => ({ ...verrow, name });
const inUse = () => sheetsNow().find((sheet) => sheet.outlet === verrow.outlet);

const textOf = (file: File) =>
  new Promise<string>((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(file);
  });

/** As a page that has just opened. */
async function reopen(): Promise<void> {
  useSheets.setState({ shelf: {}, sheets: SHIPPED_SHEETS, lost: [], last: null });
  await openSheets();
}

beforeEach(async () => {
  await storage.clear();
  await reopen();
});

describe('the rule sheets of a browser', () => {
  it('are those that ship, until a person changes one; older versions stay', async () => {
    expect(sheetsNow()).toEqual(SHIPPED_SHEETS);
    await keepSheet(named('First'));
    await keepSheet(named('Second'));
    await reopen();
    expect(inUse()?.name).toBe('Second');
    const versions = sheetVersions(useSheets.getState().shelf, verrow.outlet);
    expect(versions.map(({ name }) => name)).toEqual([verrow.name, 'First', 'Second']);
  });

  it('can be removed and brought back', async () => {
    await removeSheet(verrow.outlet);
    await reopen();
    expect(inUse()).toBeUndefined();
    expect(listOwnRemovedSheets(useSheets.getState().shelf).map(({ name }) => name)).toEqual([verrow.name]);
    await bringSheetBack(verrow.outlet);
    await reopen();
    expect(inUse()).toEqual(verrow);
  });

  it('keep what another tab wrote meanwhile', async () => {
    await keepSheet(named('Of this tab'));
    // The other tab's page knows nothing of that yet.
    useSheets.setState({ shelf: {}, sheets: SHIPPED_SHEETS });
    await keepSheet({ ...verrow, outlet: 'another', name: 'Another' });
    expect(inUse()?.name).toBe('Of this tab');
  });

  it('remember the last change with the sheets before it, until that is forgotten', async () => {
    await keepSheet(named('Changed'));
    expect(useSheets.getState().last).toEqual({
      outlet: verrow.outlet,
      name: 'Changed',
      before: SHIPPED_SHEETS,
    });
    await removeSheet(verrow.outlet);
    expect(useSheets.getState().last?.name).toBe('Changed');
    forgetLastChange();
    expect(useSheets.getState().last).toBeNull();
  });

  it('are in use, and told to be unstored, when a change cannot be stored', async () => {
    jest.spyOn(storage, 'setItem').mockRejectedValueOnce(new Error('full'));
    await keepSheet(named('Unstored'));
    expect(inUse()?.name).toBe('Unstored');
    expect(useSettingTroubles.getState().unstored['rule-sheets']?.trouble.code).toBe('setting-unsaved');
    await useSettingTroubles.getState().unstored['rule-sheets']?.tryAgain();
    await reopen();
    expect(inUse()?.name).toBe('Unstored');
  });

  it('leave out versions that cannot be read, and say of which outlet', async () => {
    await storage.setItem('setting/rule-sheets', '{"verrow":{"versions":[{"outlet":7}],"removed":false}}');
    await reopen();
    expect(inUse()).toEqual(verrow);
    expect(useSheets.getState().lost).toEqual(['verrow']);
  });

  it('go out as a file and come in again', async () => {
    const file = sheetFile(verrow);
    expect(file.name).toBe('verrow.rules.json');
    const text = await textOf(file);
    expect(await readSheetOfFile({ text: () => Promise.resolve(text) } as File)).toEqual({ sheet: verrow });
    expect(await readSheetOfFile({ text: () => Promise.resolve('{') } as File)).toHaveProperty('problem');
  });
});
