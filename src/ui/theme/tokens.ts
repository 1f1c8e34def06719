/** The look's own values. Natural dyes on paper; each colour has one meaning. */
export const colours = {
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
  onDye: '#FFFDF7',
  /** Laid over the part of a picture that is not kept. */
  papered: 'rgba(250, 246, 236, 0.62)',
  chalk: '#FFFDF7',
} as const;

export const fonts = {
  text: 'AtkinsonHyperlegible_400Regular',
  strong: 'AtkinsonHyperlegible_700Bold',
  title: 'Fraunces_600SemiBold',
  figures: 'DMMono_400Regular',
} as const;

export const sizes = { small: 13, body: 15, lead: 17, title: 22, head: 28 } as const;

/** Distances, in pixels. */
export const space = { xs: 4, s: 8, m: 12, l: 16, xl: 24 } as const;

/** Least side of anything that is touched, in pixels. */
export const TARGET = 44;

/** From this width on the job sheet stays at the left. */
export const WIDE = 900;

/** A sheet of paper on the page: what cards and panels are. */
export const card = {
  backgroundColor: colours.sheet,
  borderWidth: 1,
  borderColor: colours.hairline,
  borderRadius: 6,
} as const;
