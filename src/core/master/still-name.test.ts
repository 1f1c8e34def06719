import { testMaster } from '../job/test-job';
import { NO_REPAIRS, type Repairs } from './repairs';
import { toSource } from './source';
import { stillName } from './still-name';

const nameWith = (repairs: Partial<Repairs>): string =>
  stillName(toSource(testMaster(), { ...NO_REPAIRS, ...repairs }), 90, 12);

it('is another for every repair that shows, so that no still of before is shown after it', () => {
  const names = [
    nameWith({}),
    nameWith({ fullRange: true }),
    nameWith({ matrix: 'smpte170m' }),
    nameWith({ deinterlace: true }),
    nameWith({ rotation: 90 }),
    nameWith({ flip: true }),
    nameWith({ pixelAspect: { num: 4, den: 3 } }),
  ];
  expect(new Set(names).size).toBe(names.length);
  for (const name of names) expect(name).toMatch(new RegExp(`^${testMaster().fingerprint}-.*-12\\.jpg$`));
});
