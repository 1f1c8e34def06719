import { sharedSetting, useSettingTroubles } from './shared-setting';
import { storage } from './storage';

const listOf = (name: string) =>
  sharedSetting<string[]>(name, {
    label: 'lists',
    read: (text) => JSON.parse(text ?? '[]') as string[],
    write: (list) => JSON.stringify(list),
  });
const withItem = (item: string) => (list: string[]) => [...list, item];
const { unstored, unread } = {
  unstored: () => useSettingTroubles.getState().unstored,
  unread: () => useSettingTroubles.getState().unread,
};
let setItem: jest.SpyInstance;

beforeEach(async () => {
  await storage.clear();
  useSettingTroubles.setState({ unstored: {}, unread: {} });
  setItem = jest.spyOn(storage, 'setItem');
});
afterEach(() => setItem.mockRestore());

describe('a setting that tabs share', () => {
  it('keeps a change that could not be stored, tells it, and stores it with the next', async () => {
    const list = listOf('list');
    await list.change(withItem('a'));
    setItem.mockRejectedValueOnce(new Error('the disk is full'));
    expect(await list.change(withItem('b'))).toEqual(['a', 'b']);
    expect(await list.load()).toEqual(['a']);
    expect(unstored().list?.trouble).toEqual({
      code: 'setting-unsaved',
      values: { what: 'lists', detail: 'the disk is full' },
    });
    expect(await list.change(withItem('c'))).toEqual(['a', 'b', 'c']);
    expect(await list.load()).toEqual(['a', 'b', 'c']);
    expect(unstored()).toEqual({});
  });

  it('is stored when the person tries again', async () => {
    const list = listOf('again');
    setItem.mockRejectedValueOnce(new Error('the disk is full'));
    await list.change(withItem('a'));
    await unstored().again?.tryAgain();
    expect(await list.load()).toEqual(['a']);
    expect(unstored()).toEqual({});
  });

  it('that cannot even be read tells so, and keeps what it knew with the change', async () => {
    const list = listOf('broken');
    await list.change(withItem('a'));
    const getItem = jest.spyOn(storage, 'getItem').mockRejectedValue(new Error('the store is gone'));
    expect(await list.change(withItem('b'))).toEqual(['a', 'b']);
    expect(unstored().broken?.trouble.values).toEqual({ what: 'lists', detail: 'the store is gone' });
    getItem.mockRestore();
    await unstored().broken?.tryAgain();
    expect(await list.load()).toEqual(['a', 'b']);
  });

  it('takes all of several changes at once, each once', async () => {
    const list = listOf('many');
    await Promise.all(['a', 'b', 'c'].map((item) => list.change(withItem(item))));
    expect(await list.load()).toEqual(['a', 'b', 'c']);
  });

  it('is as nothing where it is damaged', async () => {
    await storage.setItem('setting/list', '{');
    jest.spyOn(console, 'error').mockImplementation(() => undefined);
    expect(await listOf('list').load()).toEqual([]);
  });

  it('keeps a text aside that could not be read whole, before it is written over', async () => {
    const list = sharedSetting<string[]>('partly', {
      label: 'lists',
      read(text, onLoss) {
        const items = JSON.parse(text ?? '[]') as unknown[];
        const good = items.filter((item) => typeof item === 'string');
        if (good.length < items.length) onLoss();
        return good;
      },
      write: (items) => JSON.stringify(items),
    });
    const before = '["a",7,"b"]';
    await storage.setItem('setting/partly', before);
    expect(await list.load()).toEqual(['a', 'b']);
    expect(await storage.getItem('setting/partly/unread')).toBeNull();
    expect(await list.change(withItem('c'))).toEqual(['a', 'b', 'c']);
    expect(await storage.getItem('setting/partly/unread')).toBe(before);
    await list.change(withItem('d'));
    expect(await storage.getItem('setting/partly/unread')).toBe(before);
    // It is told until the person goes on without it, also at the next visit.
    useSettingTroubles.setState({ unread: {} });
    expect(await list.load()).toEqual(['a', 'b', 'c', 'd']);
    expect(unread().partly).toMatchObject({ label: 'lists', text: before });
    await unread().partly?.forget();
    expect(unread()).toEqual({});
    expect(await storage.getItem('setting/partly/unread')).toBeNull();
    expect(await list.load()).toEqual(['a', 'b', 'c', 'd']);
    expect(unread()).toEqual({});
  });

  it('is as before or after a change whose tab was ended at any moment', async () => {
    for (const ended of ['load', 'save'] as const) {
      const list = listOf(`ended-${ended}`);
      await list.change(withItem('a'));
      const stuck = jest
        .spyOn(storage, ended === 'load' ? 'getItem' : 'setItem')
        .mockReturnValue(new Promise<never>(() => undefined));
      void list.change(withItem('b'));
      await new Promise((resolve) => setTimeout(resolve, 20));
      stuck.mockRestore();
      expect(await listOf(`ended-${ended}`).load()).toEqual(['a']);
    }
  });
});
