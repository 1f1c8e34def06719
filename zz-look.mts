import { Visitor, TestServer, PHONE, WIDE } from './e2e/app';
import { makeClip } from './tests/make-clip';
const s = new TestServer(); await s.start();
const v = await Visitor.arrive(s.origin, PHONE);
try {
const session = await v.context.newCDPSession(v.page);
    await session.send('Storage.overrideQuotaForOrigin', { origin: s.origin, quotaSize: 50_000 });
    await v.pick(makeClip('large.mp4', { seconds: 3 }));
    await v.page.waitForTimeout(4000);
    await v.page.screenshot({ path: '/tmp/p4.png' });
} finally { await v.leave(); await s.stop(); process.exit(0); }
