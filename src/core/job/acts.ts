/** What was done to a cut, as it is called where it can be undone. */
export const CUT_ACTS = {
  'in-point': 'set the in point',
  'out-point': 'set the out point',
  trim: 'trim the cut',
  split: 'split a range',
  remove: 'remove a range',
  move: 'move a range',
  slip: 'slip a range',
  roll: 'move a cut between ranges',
  add: 'add a range',
  fit: 'fit to a length',
  list: 'take a cut list',
} as const;
/** What was done to shots. */
export const SHOT_ACTS = {
  found: 'take the found shots',
  add: 'add a shot',
  merge: 'merge two shots',
  move: 'move a shot',
  list: 'take a shot list',
} as const;
/** What was done to the clips. */
export const CLIP_ACTS = {
  add: 'add a clip',
  remove: 'remove a clip',
  rename: 'rename a clip',
  parts: 'split into parts',
} as const;
/** What was done to a clip's canvases. */
export const CANVAS_ACTS = {
  add: 'add a canvas',
  remove: 'remove a canvas',
  duplicate: 'duplicate a canvas',
  move: 'move a canvas',
  size: 'change the size',
  layout: 'change the layout',
  preset: 'take a preset',
} as const;
/** What was done to framings. */
export const FRAMING_ACTS = {
  move: 'move the window',
  zoom: 'zoom',
  tilt: 'tilt',
  turn: 'turn',
  seat: 'change the seat',
  point: 'point at the subject',
  fit: 'fill or fit',
  keyframe: 'set a keyframe',
  unkeyframe: 'remove a keyframe',
  time: 'move a keyframe',
  ease: 'change the ease',
  still: 'remove the motion',
  copy: 'copy the framing',
} as const;
