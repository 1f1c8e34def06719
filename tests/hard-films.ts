import { filmed } from './make-filmed';

/** Films that are hard in different ways, by what is done to a grainy, moving one. */
const FILTERS = {
  grainy: 'null',
  coarse: 'noise=alls=22:allf=t',
  dark: 'eq=brightness=-0.28:contrast=0.7',
  'evening sky': 'gblur=sigma=24,eq=saturation=1.4:brightness=-0.1',
  flickering: "eq=brightness='0.12*sin(2*PI*t*6)':eval=frame",
  shaking: 'crop=1840:1036:40+30*sin(t*19):22+20*cos(t*23),scale=1920:1080',
  'fast and fine': 'scroll=h=0.03,unsharp=7:7:1.5',
  'nearly still': 'trim=end_frame=1,loop=-1:1,setpts=N/24/TB,trim=end=8,noise=alls=3:allf=t',
} as const;
export type HardFilm = keyof typeof FILTERS;
export const HARD_FILMS = Object.keys(FILTERS) as HardFilm[];

/** @param seconds that it lasts. */
export const hardFilm = (name: HardFilm, seconds: number): string =>
  filmed(`hard ${name}`, FILTERS[name], { from: 0, seconds });
