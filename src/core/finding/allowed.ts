/**
 * How much of something is let pass before it is said. Starting values of the trade: common practice, no published
 * source, where nothing else is named.
 */
export const allowed = {
  /** delivery pixels that a corner may lie off and the join still hides it */
  move: 0.3,
  /** so many times what is allowed, and a fault can no longer be mended well */
  graveMove: 4,
  /** delivery pixels that a repeated move may lie beside its first pass: it is corrected picture by picture */
  passMove: 3,
  /** share of a picture's width that it may lie beside it, for the edge that it leaves to stay a rim. By trial */
  passAside: 0.12,
  /** share of a clean plate in which something may change while it runs: leaves, a curtain. By trial */
  plateMoves: 0.3,
  /** stops between a take and its plate */
  stops: 0.1,
  /** CIEDE2000 between a take and its plate, and across a join: just noticeable. Mahy, Van Eycken & Oosterlinck 1994 */
  difference: 2.3,
  /** so many times that, and a join cannot be used */
  graveDifference: 3,
  /** share of the picture that has to fit a plate of the same place */
  agreement: 0.45,
  /** share of the plate's fine detail that a picture has to have */
  sharpness: 0.75,
  /** share of a picture's width by whose Gaussian a take may be softer than its plate, and so many times that to be of no use. By trial */
  unsharp: 0.0015,
  graveUnsharp: 2.5,
  /** pixels of a take by whose Gaussian what is held beside it may be sharper or softer. By trial */
  softer: 0.5,
  /** standard deviation of a take's grain, in codes of 255, that is not seen to stand where a picture is held. By trial */
  grain: 0.8,
  /** seconds for which something that does not move may stand outside the copies' zones */
  hanging: 2,
  /** seconds that a repeated move may be late as a whole: two frames, which can be moved on the timeline */
  late: 0.08,
  /** how much a picture may be enlarged before it is soft: 1 is not at all */
  enlarged: 1.3,
  /** by how much a picture may be enlarged so that its camera goes calmly */
  smoothed: 1.15,
  /** share of a picture's width or height that the film's shape may cut off unsaid */
  cropped: 0.01,
  /** metres between the heights of two pairs of eyes, and between two distances from the lens, for a touch */
  eyes: 0.03,
  depth: 0.15,
  /** metres between the eyes of two who were found in takes, and share by which their sizes may differ: more than finding them is off */
  foundEyes: 0.05,
  foundSize: 0.05,
  /** share by which somebody may be larger than a mark has it: bodies differ from the usual one by whose bones they are told */
  markedSize: 0.12,
  /** share by which the light of lamps on the mains may differ from picture to picture */
  flicker: 0.04,
  /** share of a zone that another one may cover */
  overlap: 0.05,
  /** seconds that a take filmed to the song may lie off it: half a picture at 24 a second */
  playback: 0.021,
  /** seconds by which lips may come after what is sung, and before it: where most viewers no longer accept it. ITU-R BT.1359-1 */
  lipsLate: 0.09,
  lipsEarly: 0.185,
  /** seconds within which a film's join lies on its beat: a picture at 24 a second */
  onBeat: 0.042,
  /** how sure it has to be that the song is heard in a take, 0..1 */
  heard: 0.5,
  /** share by which a take's rate may be off a multiple of the film's: 23.976 is 24 */
  rate: 0.002,
  /** share of a take's pictures in which nothing may be seen */
  dark: 0.5,
  /** share of the picture that may be burnt out unsaid, and with which nothing can be made of it */
  blown: 0.15,
  graveBlown: 0.6,
  /** so many times what changes from picture to picture may change where one take goes over into another */
  jump: 1.5,
  /** so many times that, and nobody misses it */
  graveJump: 2.5,
  /** share of the picture that has to be covered by what passes close by, so that a cut hides behind it */
  fills: 0.9,
  /** delivery pixels by which a set that stands may be off from one side of a cut to the other */
  cutMove: 1,
  /** degrees by which two pans that meet may differ, and so many times as fast may one of them be */
  panTurn: 30,
  panSpeed: 1.35,
  /** kinds of effect in one film */
  kinds: 5,
} as const;
