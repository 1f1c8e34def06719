/** Natural dyes on paper; each colour has one meaning. */
const light = {
  paper: '#FAF6EC',
  sheet: '#FFFDF7',
  ink: '#1F2B33',
  softInk: '#566269',
  hairline: '#DED5C2',
  /** Edge of a control, against paper. */
  edge: '#8A8271',
  woad: '#2B5C8A',
  woadWash: '#E6EDF1',
  verdigris: '#256E5C',
  weld: '#8F5E12',
  madder: '#A83245',
  madderWash: '#F6E4E2',
  /** Words on a dye. */
  onDye: '#FFFDF7',
  /** A tool that cannot be used now. */
  disabled: '#EFE9DB',
  /** Laid over the part of a picture that is not kept. */
  papered: 'rgba(250, 246, 236, 0.62)',
  /** Lines drawn on pictures. */
  chalk: '#FFFDF7',
  /** The canvases' own dyes. */
  canvas0: '#2B5C8A',
  canvas1: '#6B3F73',
  canvas2: '#7A4E2A',
  canvas3: '#66741F',
  canvas4: '#4A5560',
  canvas5: '#9A4463',
};
export type Palette = Record<keyof typeof light, string>;

/** The indigo vat: the same meanings, with lighter dyes on a dark ground. */
const dark: Palette = {
  paper: '#12202B',
  sheet: '#1A2B38',
  ink: '#EFE8D8',
  softInk: '#B4BFC6',
  hairline: '#33475A',
  edge: '#8C98A1',
  woad: '#8DB9DE',
  woadWash: '#22394B',
  verdigris: '#7CC4AE',
  weld: '#D9AE62',
  madder: '#F0A0AB',
  madderWash: '#43262F',
  onDye: '#12202B',
  disabled: '#24343F',
  papered: 'rgba(18, 32, 43, 0.62)',
  chalk: '#FFFDF7',
  canvas0: '#8DB9DE',
  canvas1: '#C9A3D2',
  canvas2: '#D6AC88',
  canvas3: '#B9C76F',
  canvas4: '#B3BFC9',
  canvas5: '#E79DB8',
};

export const PALETTES = { light, dark };
export type Scheme = keyof typeof PALETTES;

/** Makes the name of a colour in the page's style sheet. */
export const toCssVariable = (name: string): string =>
  `--${name.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;

/** The colours of the style sheet, as its declarations: each in both themes. */
export const declarations = (): string[] =>
  Object.entries(light).map(([name, value]) =>
    `${toCssVariable(name)}: light-dark(${value}, ${dark[name as keyof Palette]});`.toLowerCase(),
  );
