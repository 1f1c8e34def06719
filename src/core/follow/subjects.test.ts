import { busyPart } from './busy';
import {
  type Evidence,
  evidenceSchema,
  listSubjectKinds,
  createEvidence,
  type Track,
  unseenParts,
  withDrawn,
  withSpan,
} from './evidence';
import { isDivided, findSubject, listSubjects } from './subjects';

const RATE = 25;
const trackOf = (
  kind: Track['kind'],
  more: { from?: number; to?: number; x?: number; go?: number; size?: number; sure?: number } = {},
): Track => {
  const { from = 0, to = 250, x = 0.5, go = 0, size = 0.2, sure = 0.6 } = more;
  const count = Math.max(2, Math.round((to - from) / 5));
  return {
    kind,
    look: null,
    points: Array.from({ length: count }, (_, i) => ({
      frame: from + i * 5,
      confidence: sure,
      box: { x: x + (go * i) / count - size / 4, y: 0.5 - size / 2, width: size / 2, height: size },
    })),
  };
};
const evidence = (tracks: Track[], drawn: Track[] = []): Evidence => ({
  ...createEvidence('f'),
  drawn,
  spans: [{ in: 0, out: 250, tracks, busy: null }],
});
const kinds = (found: Evidence, range = { in: 0, out: 250 }) =>
  listSubjects(found, range, RATE).map(({ track }) => track.kind);

describe('the subjects of a shot', () => {
  it('are numbered, people before things, and a drawn box before all', () => {
    const found = listSubjects(
      evidence([trackOf('thing'), trackOf('person')], [trackOf('drawn')]),
      { in: 0, out: 250 },
      RATE,
    );
    expect(found.map(({ number, track }) => [number, track.kind])).toEqual([
      [1, 'drawn'],
      [2, 'person'],
      [3, 'thing'],
    ]);
  });

  it('count things by how far they go, and what is there only for a while for less', () => {
    expect(
      kinds(evidence([trackOf('thing', { sure: 0.6 }), trackOf('motion', { go: 0.4, x: 0.2 })]))[0],
    ).toBe('motion');
    const [first] = listSubjects(
      evidence([trackOf('person', { to: 60, x: 0.2 }), trackOf('person', { x: 0.8 })]),
      { in: 0, out: 250 },
      RATE,
    );
    expect(first?.track.points).toHaveLength(50);
  });

  it('leave out movement that is one of them, and what is there for a moment', () => {
    expect(kinds(evidence([trackOf('person'), trackOf('motion', { size: 0.15 })]))).toEqual(['person']);
    expect(kinds(evidence([trackOf('person', { to: 10 })]))).toEqual([]);
  });

  it('are those of the range alone', () => {
    expect(
      kinds(evidence([trackOf('person', { to: 100 }), trackOf('thing', { from: 150 })]), {
        in: 140,
        out: 250,
      }),
    ).toEqual(['thing']);
  });

  it('are found again by a place where one was', () => {
    const found = listSubjects(
      evidence([trackOf('person', { x: 0.2 }), trackOf('thing', { x: 0.7 })]),
      { in: 0, out: 250 },
      RATE,
    );
    expect(findSubject(found, 100, { x: 0.7, y: 0.5 })?.track.kind).toBe('thing');
    expect(findSubject(found, 100, { x: 0.45, y: 0.5 })).toBeNull();
  });

  it('are divided where two are as likely', () => {
    const range = { in: 0, out: 250 };
    expect(
      isDivided(
        listSubjects(evidence([trackOf('person', { x: 0.3 }), trackOf('person', { x: 0.7 })]), range, RATE),
      ),
    ).toBe(true);
    expect(isDivided(listSubjects(evidence([trackOf('person'), trackOf('thing')]), range, RATE))).toBe(false);
    expect(isDivided([])).toBe(false);
  });
});

describe('evidence', () => {
  it('knows what was not looked at, and takes each part once', () => {
    const half = withSpan(createEvidence('f'), { in: 50, out: 100, tracks: [], busy: null });
    expect(unseenParts(half.spans, { in: 0, out: 150 })).toEqual([
      { in: 0, out: 50 },
      { in: 100, out: 150 },
    ]);
    expect(unseenParts(half.spans, { in: 60, out: 90 })).toEqual([]);
    expect(() => withSpan(half, { in: 99, out: 120, tracks: [], busy: null })).toThrow(RangeError);
  });

  it('is stored and read again', () => {
    const found = evidence([trackOf('person')], [trackOf('drawn')]);
    expect(evidenceSchema.parse(JSON.parse(JSON.stringify(found)))).toEqual(found);
  });
});

describe('drawn boxes', () => {
  it('are kept for each shot, the latest three', () => {
    const range = { in: 0, out: 250 };
    const drawn = [0.1, 0.2, 0.3, 0.4].map((x) => trackOf('drawn', { x }));
    const elsewhere = trackOf('drawn', { from: 300, to: 400 });
    const start: Evidence = { ...createEvidence('f'), drawn: [elsewhere] };
    const found = drawn.reduce((all, track) => withDrawn(all, track, range), start);
    expect(found.drawn).toEqual([elsewhere, ...drawn.slice(1)]);
  });
});

describe('who is in a shot', () => {
  it('are the kinds that are there for a good part of it', () => {
    const found = evidence([trackOf('person'), trackOf('animal', { to: 60 }), trackOf('motion')]);
    expect(listSubjectKinds(found, { in: 0, out: 250 })).toEqual(['person']);
    expect(listSubjectKinds(found, { in: 0, out: 100 })).toEqual(['person', 'animal']);
  });
});

describe('the busy part of a shot', () => {
  it('is where most of what moves is, without what moves a little elsewhere', () => {
    const sighting = (x: number, size: number) => ({
      ...{ kind: 'motion' as const, confidence: 0.8, look: null },
      box: { x, y: 0.4, width: size, height: size },
    });
    const samples = Array.from({ length: 20 }, (_, i) => ({
      frame: i,
      detected: false,
      seen: [sighting(0.3 + i * 0.01, 0.2), sighting(0.95, 0.02)],
    }));
    const busy = busyPart(samples)!;
    expect(busy.x).toBeGreaterThan(0.29);
    expect(busy.x + busy.width).toBeLessThan(0.75);
    expect(busyPart([{ frame: 0, detected: true, seen: [] }])).toBeNull();
  });
});
