import { doneNotice, noticeState, setDoneNotice, tellDone } from './done-notice';

const mockStored = new Map<string, string>();
jest.mock('../store/storage', () => ({
  loadSetting: (name: string) => Promise.resolve(mockStored.get(name) ?? null),
  saveSetting: (name: string, value: string) => Promise.resolve(void mockStored.set(name, value)),
}));

/** Notices as a browser shows them. */
class Notice {
  static permission: NotificationPermission = 'default';
  static shown: { title: string; body: string }[] = [];
  static requestPermission = () => Promise.resolve((Notice.permission = 'granted'));

  constructor(title: string, { body }: { body: string }) {
    Notice.shown.push({ title, body });
  }
}

let hidden = true;
beforeEach(() => {
  mockStored.clear();
  Object.assign(Notice, { permission: 'default', shown: [] });
  Object.assign(globalThis, { Notification: Notice });
  Object.defineProperty(document, 'hidden', { configurable: true, get: () => hidden });
  hidden = true;
  doneNotice.choose('off');
});

describe('notices of finished exports', () => {
  it('ask for leave once, and are remembered', async () => {
    expect(await setDoneNotice(true)).toBe(true);
    expect(mockStored.get('done-notice')).toBe('on');
    doneNotice.use.setState({ value: 'off' });
    await doneNotice.open();
    tellDone({ fileName: 'kite.mp4' }, 2);
    tellDone({ fileName: 'kite-2.mp4' }, 0);
    expect(Notice.shown).toEqual([
      { title: 'kite.mp4 is ready', body: '2 more in the queue.' },
      { title: 'kite-2.mp4 is ready', body: 'Nothing is left in the queue.' },
    ]);
  });

  it('stay off where they are forbidden, and where the browser has none', async () => {
    Notice.permission = 'denied';
    expect(await setDoneNotice(true)).toBe(false);
    Reflect.deleteProperty(globalThis, 'Notification');
    expect(noticeState()).toBe('missing');
    expect(await setDoneNotice(true)).toBe(false);
    expect(mockStored.get('done-notice')).toBe('off');
  });

  it('do not come while the person looks on, nor from a setting that is no good', async () => {
    await setDoneNotice(true);
    hidden = false;
    tellDone({ fileName: 'kite.mp4' }, 0);
    mockStored.set('done-notice', 'perhaps');
    await doneNotice.open();
    expect(doneNotice.use.getState().value).toBe('on');
    expect(Notice.shown).toEqual([]);
  });
});
