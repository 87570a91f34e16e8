/** A number with its unit. Lengths in metres. */
export type Quantity = {
  value: number;
  unit:
    | 'px'
    | 'stops'
    | 'deltaE'
    | 'share'
    | 'seconds'
    | 'frames'
    | 'perSecond'
    | 'metres'
    | 'fNumber'
    | 'minutes'
    | 'degrees'
    | 'gigabytes'
    | 'speed'
    | 'scale'
    | 'count';
};

/** Where something was found: ids and spans, never words. Seconds count in the take or song itself. */
export type Place = {
  take?: string;
  media?: string;
  moment?: string;
  setup?: string;
  shot?: string;
  from?: number;
  to?: number;
};
export type Severity = 'stop' | 'fix' | 'watch' | 'fine';

/** What the store can do at once about something that was found. */
export type FixCommand =
  | 'setSetup'
  | 'askedStory'
  | 'steadyTake'
  | 'unsteadyTake'
  | 'matchTake'
  | 'unmatchTake'
  | 'readColours'
  | 'repeatMove'
  | 'standStill'
  | 'buildPlate'
  | 'leaveOut'
  | 'startEarlier'
  | 'frameMoment'
  | 'fitMoment'
  | 'followFall'
  | 'layOnSong'
  | 'layInStep'
  | 'keepShadows'
  | 'hideShadows'
  | 'evenHeld'
  | 'leaveHeld'
  | 'readBeatsOtherwise'
  | 'dropMedia';

/**
 * The one shape of every judgement. `facts` are further values that the sentence needs. Whoever raises findings says
 * in their type which codes they can have: those that stand in words beside it.
 */
export type Finding<Code extends string = string> = {
  code: Code;
  severity: Severity;
  measured?: Quantity;
  allowed?: Quantity;
  where: Place;
  facts?: Record<string, string | number>;
  fix?: { command: FixCommand; args: unknown };
};

const rank: Record<Severity, number> = { stop: 0, fix: 1, watch: 2, fine: 3 };

/** The gravest first. */
export const byGravity = <Code extends string>(findings: readonly Finding<Code>[]): Finding<Code>[] =>
  [...findings].sort((a, b) => rank[a.severity] - rank[b.severity]);

/** How many ask for something to be done. */
export const openCount = (findings: readonly Finding[]): number =>
  findings.filter((finding) => finding.severity === 'stop' || finding.severity === 'fix').length;
