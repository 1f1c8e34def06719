import { NO_REPAIRS } from '../master/repairs';
import { toSource } from '../master/source';
import { testMaster } from '../job/test-job';
import { testPass } from '../job/test-pass';
import { diagnoseMaster, type DiagnosisInput } from './diagnosis';
import type { ProblemCode } from './problem-values';
import { problemWords } from './words';

const tall = { width: 1080, height: 1920 };
const pass = testPass();
const patient = (
  master: Parameters<typeof testMaster>[0] = {},
  more: Partial<DiagnosisInput> = {},
): DiagnosisInput => ({
  master: testMaster(master),
  repairs: NO_REPAIRS,
  pass,
  canvases: [tall],
  ...more,
});
const find = (patient: DiagnosisInput, code: ProblemCode) =>
  diagnoseMaster(patient).find((problem) => problem.code === code);
/** The patient after its first offer of a kind. */
const cured = (patient: DiagnosisInput, code: ProblemCode): DiagnosisInput => {
  const offer = find(patient, code)?.offers[0];
  if (!offer) throw new Error(`nothing is offered against ${code}`);
  return { ...patient, repairs: offer.repairs };
};

describe('a diagnosis', () => {
  it('finds nothing wrong with a plain master', () => {
    expect(diagnoseMaster(patient())).toEqual([]);
  });

  // Handbook cases: half the lines missing, and the tape ratios of ITU-R BT.601-7 with SMPTE RP 187.
  it.each([
    [{ width: 640, height: 240 }, 0, { width: 640, height: 480 }],
    [{ width: 720, height: 480 }, 0, { width: 720, height: 528 }],
    [{ width: 720, height: 480 }, 1, { width: 873, height: 480 }],
    [{ width: 720, height: 576 }, 0, { width: 785, height: 576 }],
    [{ width: 720, height: 576 }, 1, { width: 1047, height: 576 }],
    [{ width: 1440, height: 1080 }, 0, { width: 1920, height: 1080 }],
  ])('of %p offers pixels that are not square', (coded, offer, picture) => {
    const sick = patient({ coded, picture: coded });
    const offered = find(sick, 'pixel-aspect')?.offers[offer];
    expect(toSource(sick.master, offered?.repairs).picture).toEqual(picture);
  });

  it('warns of bars, and of none once their edges are taken, upright also on a turned master', () => {
    const live = { x: 0, y: 0.1, width: 1, height: 0.8 };
    const sick = patient({}, { pass: { ...pass, live } });
    expect(find(sick, 'bars')).toMatchObject({ weight: 'warn', values: { live: '1920×864' } });
    expect(cured(sick, 'bars').repairs.live).toEqual(live);
    expect(find(cured(sick, 'bars'), 'bars')).toMatchObject({ weight: 'fine', repaired: true });
    const turned = cured(patient({ rotation: 90 }, { pass: { ...pass, live } }), 'bars').repairs.live;
    expect(turned?.x).toBeCloseTo(0.1, 9);
    expect(turned?.width).toBeCloseTo(0.8, 9);
  });

  it('tells a varying rate with its costs, and maps it to another', () => {
    const frameTimes = { least: 1 / 60, mean: 1 / 30, greatest: 1 / 15 };
    const sick = patient({
      constantRate: false,
      rate: { num: 30, den: 1 },
      frameTimes,
      repeated: 7,
      dropped: 3,
    });
    expect(find(sick, 'varying-rate')).toMatchObject({
      values: { least: '15.00', greatest: '60.00', repeated: 7 },
    });
    const half = find(sick, 'varying-rate')?.offers[0];
    expect(toSource(sick.master, half?.repairs)).toMatchObject({ rate: { num: 30, den: 2 }, frames: 492 });
  });

  it('warns of fields, and draws whole frames', () => {
    const sick = patient({}, { pass: { ...pass, combed: 0.6, topFirst: true } });
    expect(find(sick, 'interlace')).toMatchObject({ weight: 'warn', values: { share: 60, order: 'top' } });
    expect(cured(sick, 'interlace').repairs.deinterlace).toBe(true);
  });

  // A 640×360 picture fills 1080×1920 at 1920/360 = 533 %; to stay at 200 % it needs 960 lines.
  it('says by how much a master is too small', () => {
    const sick = patient({ picture: { width: 640, height: 360 } });
    expect(find(sick, 'small')?.values).toMatchObject({ percent: 533, height: 960 });
    expect(find(patient({ picture: { width: 3840, height: 2160 } }), 'small')).toBeUndefined();
  });

  it('welcomes tall and square masters, and tells loud sound', () => {
    const size = (width: number, height: number) => ({ picture: { width, height } });
    expect(find(patient(size(1080, 1920)), 'upright')?.values).toEqual({ shape: 'tall' });
    expect(find(patient(size(1080, 1080)), 'upright')?.values).toEqual({ shape: 'square' });
    const sound = {
      integrated: -14,
      loudest: -10,
      truePeak: -0.2,
      samplePeak: -1,
      shortTerm: [],
      pauses: [],
    };
    expect(find(patient({}, { pass: { ...pass, sound } }), 'loud')?.weight).toBe('note');
  });

  it('has words for every problem, repaired or not, worst first', () => {
    const sound = { integrated: -14, loudest: -10, truePeak: 0.5, samplePeak: 0, shortTerm: [], pauses: [] };
    const live = { x: 0.1, y: 0, width: 0.8, height: 1 };
    const shots = [{ frame: 0, start: null, live }];
    const sick = patient(
      {
        coded: { width: 720, height: 576 },
        picture: { width: 720, height: 576 },
        rotation: 90,
        flip: true,
        constantRate: false,
        colour: { matrix: null, primaries: null, transfer: null, fullRange: true },
      },
      { pass: { ...pass, live, shots, combed: 0.5, sound } },
    );
    const problems = diagnoseMaster(sick);
    const codes: ProblemCode[] = [
      'pixel-aspect',
      'rotation',
      'flip',
      'bars',
      'shot-bars',
      'range',
      'matrix',
      'varying-rate',
      'interlace',
      'upright',
      'small',
      'loud',
    ];
    expect(problems.map((problem) => problem.code).sort()).toEqual([...codes].sort());
    const weights = problems.map((problem) => ['warn', 'note', 'fine'].indexOf(problem.weight));
    expect(weights).toEqual([...weights].sort());
    for (const problem of problems) {
      const tries = [
        problem,
        ...problem.offers.flatMap(({ repairs }) => find({ ...sick, repairs }, problem.code) ?? []),
      ];
      for (const each of tries) {
        const { title, meaning } = problemWords(each);
        expect(`${title} ${meaning}`).not.toMatch(/undefined|null|NaN/);
        expect(meaning).toMatch(/\.$/);
      }
    }
  });
});
