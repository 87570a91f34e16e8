import { allowed } from '@/core/finding/allowed';
import type { Finding, Place } from '@/core/finding/finding';
import type { TakeCode } from '@/core/footage/take-words';
import type { ShootCode } from '@/core/shoot/shoot-words';
import { sayReading, sureFrom } from '@/core/song/certainty';
import type { SongCode } from '@/core/song/song-words';
import type { Comparison, TakeMeasure } from '@/core/model/measures';
import type { Moment, Project, Take } from '@/core/model/records';
import { plateSlot } from '@/core/model/slots';
import { isOverPlate, slotsInUse } from '@/core/recipes/built';
import { sortTake } from '@/core/recipes/sort-take';
import { examinePlayback } from '@/core/recipes/examine-playback';
import { examineFraming } from '@/core/recipes/framing';
import { examineHand } from '@/core/hand/examine';
import type { Recipe, Ruler } from '@/core/recipes/recipe';
import { examineRepeats } from '@/core/recipes/examine-repeats';
import { examineSmoothing, smoothableIn } from '@/core/recipes/smoothing';
import { mayHold } from '@/core/recipes/held';
import { examineGrain } from '@/core/recipes/held-grain';
import { examineSoftness } from '@/core/recipes/held-softness';
import { examineVeils, hidesSomebody, mayBeKnown } from '@/core/recipes/veils';
import { examineTake } from '@/core/footage/take-findings';
import { shortTakes, takeLabel, type Board } from '@/core/shoot/board';
import { rememberedWith } from '@/core/remember';
import { mostFlashes } from '@/core/safety/flash';
import type { FlashCode } from '@/core/safety/flash-words';
import { atMarkOf } from './bodies';
import type { Media } from './db';
import type { Plan } from './plan';
import { buildable, materialOf, pictureOf } from './material';
import { soundFindings } from './sounds';
import { comparisonOf, lipsIn, playbackOf, songMeasure, takeMeasure, type Snapshot } from './snapshot';
import { filmedIn, partsOfPlate, plateFor } from './plates';

export type StationName = 'song' | 'plan' | 'shoot' | 'match' | 'build' | 'deliver';

/** Findings of each station, computed from what is there now. */
export function findingsOf(snapshot: Snapshot, plan: Plan): Record<StationName, Finding[]> {
  const build = momentFindings(snapshot);
  return {
    song: songFindings(snapshot),
    plan: plan.findings,
    shoot: plan.boards.flatMap(boardFindings),
    match: takeFindings(snapshot),
    build,
    deliver: build.filter((one) => one.severity === 'stop' || mayBeKnown(one)),
  };
}

/** What a setup still lacks once it was begun; one that nobody has filmed in yet is no finding. */
function boardFindings(board: Board): Finding<ShootCode>[] {
  const where = { setup: board.setup };
  const logs = board.rows.flatMap((row) => row.logs);
  const findings: Finding<ShootCode>[] = [];
  const count = (value: number) => ({ value, unit: 'count' as const });
  const drafts = logs.filter(({ draft, rating }) => draft && rating === 'good').length;
  if (drafts > 0) findings.push({ code: 'shoot.draft', severity: 'watch', where, measured: count(drafts) });
  for (const row of board.rows)
    for (const log of shortTakes(row))
      findings.push({
        code: 'shoot.short',
        severity: 'watch',
        where: { ...where, shot: row.id },
        measured: { value: log.length ?? 0, unit: 'seconds' },
        allowed: { value: row.shot?.seconds ?? 0, unit: 'seconds' },
        facts: { take: takeLabel(log, row.logs), shot: row.title },
      });
  const given = board.struck?.given.length ?? 0;
  if (given > 0) findings.push({ code: 'shoot.given', severity: 'watch', where, measured: count(given) });
  if (board.struck) return findings;
  if (board.ready) findings.push({ code: 'shoot.ready', severity: 'fine', where });
  else if (logs.length > 0)
    findings.push({
      code: 'shoot.missing',
      severity: 'fix',
      where,
      measured: count(board.missing.length),
      facts: { of: board.rows.length, next: board.next?.title ?? '' },
    });
  return findings;
}

function songFindings(snapshot: Snapshot): Finding[] {
  return [...problems(snapshot, (media) => media.type.startsWith('audio')), ...beatFindings(snapshot)];
}

function beatFindings(snapshot: Snapshot): Finding<SongCode>[] {
  const measure = songMeasure(snapshot);
  const findings: Finding<SongCode>[] = [];
  const { song } = snapshot;
  if (!song?.media || !measure) return findings;
  const where = { media: song.media };
  if (measure.song.silent) findings.push({ code: 'song.silent', severity: 'fix', where });
  else if (song.grid && song.confidence !== null && song.confidence < sureFrom) {
    const { other } = measure.beats;
    findings.push({
      code: 'song.unsure',
      severity: 'watch',
      measured: { value: song.confidence, unit: 'share' },
      where,
      ...(other
        ? {
            facts: { other: sayReading(measure.beats, other) },
            fix: { command: 'readBeatsOtherwise' as const, args: {} },
          }
        : {}),
    });
  } else if (!song.grid) findings.push({ code: 'song.no-beats', severity: 'fix', where });
  return findings;
}

/** Files that could not be used, in the words they were refused with. */
function problems(snapshot: Snapshot, belongs: (media: { type: string }) => boolean): Finding[] {
  return [...snapshot.media.values()]
    .filter((media) => media.problem && belongs(media))
    .map((media) => ({
      code: media.problem?.code ?? '',
      severity: 'stop' as const,
      where: { media: media.id },
      facts: { name: media.name, message: media.problem?.message ?? '' },
      fix: { command: 'dropMedia', args: { media: media.id } },
    }));
}

/** Where takes have nothing to be held against: everywhere, or in some setups. */
function withoutPlate(snapshot: Snapshot): Place[] {
  const { takes } = snapshot;
  if (takes.length === 0) return [];
  const filmed = takes.filter(({ slot }) => slot === null || isOverPlate(slot));
  if (filmed.length === 0) return takes.some(({ slot }) => slot === plateSlot) ? [] : [{}];
  const bare = filmed.filter((take) => !plateFor(snapshot, take));
  return [...new Set(bare.map((take) => filmedIn(snapshot, take)))].map((setup) => (setup ? { setup } : {}));
}

const takesFindings = rememberedWith<Take[], Finding[]>();

function takeFindings(snapshot: Snapshot): Finding[] {
  const { project, takes, logs, setups, marks, media, measures } = snapshot;
  const chosen = chosenFor(snapshot);
  const parts = [project, logs, setups, marks, media, measures, JSON.stringify([...chosen])];
  return takesFindings(takes, parts, () => examineTakes(snapshot, chosen));
}

/** The slots that takes fill of which nobody said what they are: whoever chose them there has said it. */
function chosenFor({ takes, built }: Snapshot): ReadonlyMap<string, string> {
  const open = new Set(takes.flatMap(({ id, slot }) => (slot === null ? [id] : [])));
  return new Map(
    open.size === 0
      ? []
      : built.flatMap(({ slots = {} }) =>
          Object.entries(slots).flatMap(([slot, { take }]): [string, string][] =>
            take && open.has(take) ? [[take, slot]] : [],
          ),
        ),
  );
}

function examineTakes(snapshot: Snapshot, chosen: ReadonlyMap<string, string>): Finding[] {
  const { project, takes } = snapshot;
  const bare = withoutPlate(snapshot).map((where): Finding<TakeCode> => ({
    code: 'setup.no-plate',
    severity: 'fix',
    where,
    ...(partsOfPlate(snapshot, where.setup ?? null).length > 0
      ? { fix: { command: 'buildPlate' as const, args: { setup: where.setup ?? null } } }
      : {}),
  }));
  const doubted = platesAlone(snapshot, chosen);
  const alone = new Set(doubted.map(({ where }) => where.take));
  const findings = [...problems(snapshot, (media) => !media.type.startsWith('audio')), ...bare, ...doubted];
  for (const take of takes) {
    const measure = takeMeasure(snapshot, take);
    const media = snapshot.media.get(take.media);
    if (!measure || !media) continue;
    const held = plateFor(snapshot, take);
    const plate = held && alone.has(held.id) ? null : held;
    const slot = take.slot ?? chosen.get(take.id) ?? null;
    const over = slot === null || isOverPlate(slot);
    const comparison = over ? comparisonOf(snapshot, take, plate) : null;
    const plateMeasure = plate === take || !over ? null : takeMeasure(snapshot, plate);
    const parts = [measure, media, comparison, plateMeasure, project, slot];
    findings.push(
      ...known(take, parts, () =>
        examineOne({ ...take, slot }, measure, media, comparison, plateMeasure, project),
      ),
      ...atMarkOf(snapshot, take),
    );
  }
  return findings;
}

/** takes that have to show another place before their plate is doubted instead of them */
const enoughTakes = 2;

/** The plates that fit none of the takes that were held against them; what shows nothing fits none anyway. */
function platesAlone(snapshot: Snapshot, chosen: ReadonlyMap<string, string>): Finding<TakeCode>[] {
  const held = new Map<string, { slots: (string | null)[]; fit: boolean }>();
  for (const take of snapshot.takes) {
    const slot = take.slot ?? chosen.get(take.id) ?? null;
    const plate = slot === null || isOverPlate(slot) ? plateFor(snapshot, take) : null;
    const comparison = comparisonOf(snapshot, take, plate);
    const light = takeMeasure(snapshot, take)?.light;
    if (!plate || !comparison || !light || light.dark > allowed.dark || light.blown > allowed.graveBlown)
      continue;
    const { slots, fit } = held.get(plate.id) ?? { slots: [], fit: false };
    held.set(plate.id, {
      slots: [...slots, slot],
      fit: fit || comparison.agreement >= allowed.agreement,
    });
  }
  return [...held]
    .filter(([, { slots, fit }]) => !fit && slots.length >= enoughTakes)
    .map(([take, { slots }]) => ({
      code: 'take.plate-alone',
      // Of takes that nobody has a use for yet it may be any.
      severity: slots.some((slot) => slot !== null) ? 'stop' : 'fix',
      where: { take },
      facts: { takes: slots.length },
      fix: { command: 'leaveOut', args: { take } },
    }));
}

const known = rememberedWith<Take, Finding[]>();

function examineOne(
  take: Take,
  measure: TakeMeasure & { complete: boolean },
  media: Media,
  comparison: Comparison | null,
  plate: TakeMeasure | null,
  project: Project,
): Finding<TakeCode>[] {
  const findings: Finding<TakeCode>[] = [];
  if (!measure.complete) {
    findings.push({
      code: 'take.cut-off',
      severity: 'fix',
      where: { take: take.id, from: measure.times.last },
    });
  }
  const { made } = take;
  if (made?.doubt !== undefined)
    findings.push({
      code: 'take.made',
      severity: 'watch',
      where: { take: take.id },
      measured: { value: made.doubt, unit: 'share' },
      facts: { takes: made.takes ?? made.from.length },
    });
  if (media.probe?.video?.turned) {
    findings.push({
      code: 'take.turned',
      severity: 'watch',
      where: { take: take.id },
      facts: { degrees: media.probe.video.turned },
    });
  }
  if (take.slot !== null) return [...findings, ...examineTake(take, measure, comparison, plate, project)];
  const sorted = sortTake(measure, plate, comparison);
  if (sorted && 'doubt' in sorted && sorted.doubt !== 'no-plate')
    findings.push({
      code: 'take.unsorted',
      severity: 'fix',
      where: { take: take.id },
      facts: { doubt: sorted.doubt },
    });
  return [...findings, ...examineTake(take, measure, null, null, project)];
}

const examined = rememberedWith<Moment, Finding[]>();
const framings = rememberedWith<Moment, Finding[]>();

/** The slots whose takes show somebody. */
const takesOf = (moment: Moment, recipe: Recipe): string[] =>
  slotsInUse(moment, recipe).flatMap(({ key }) => (key === plateSlot ? [] : [key]));

const veils = rememberedWith<Moment, Finding[]>();
const helds = rememberedWith<Moment, Finding[]>();
const hands = rememberedWith<Moment, Finding[]>();

/** What is wrong with what was keyed by hand. */
function handFindings(snapshot: Snapshot, moment: Moment, ruler: Ruler): Finding[] {
  const built = moment.keys || moment.handheld ? pictureOf(snapshot, moment) : null;
  if (!built) return [];
  return hands(moment, [ruler, built.layered], () =>
    examineHand(moment, built.layered, built.anchors, ruler),
  );
}

function momentFindings(snapshot: Snapshot): Finding[] {
  const flashing = snapshot.built.flatMap((moment) => flashesOf(snapshot, moment));
  const built = snapshot.built.flatMap((moment) => {
    const able = buildable(snapshot, moment);
    if (!able) return [];
    const { recipe, ruler } = able;
    const { fresh } = materialOf(snapshot, moment);
    return [
      ...examined(moment, [ruler, fresh], () => recipe.examine(moment, ruler, fresh)),
      ...framings(moment, [ruler, fresh], () =>
        recipe.framesItself ? [] : examineFraming(moment, ruler, fresh, takesOf(moment, recipe)),
      ),
      ...handFindings(snapshot, moment, ruler),
      ...(hidesSomebody(fresh.takes)
        ? veils(moment, [ruler, fresh], () => examineVeils(moment, recipe.build(moment, ruler, fresh), fresh))
        : []),
      ...(mayHold(recipe)
        ? helds(moment, [ruler, fresh], () => {
            const tree = recipe.build(moment, ruler, fresh);
            return [...examineSoftness(moment, tree, fresh), ...examineGrain(moment, tree, fresh)];
          })
        : []),
      ...examineRepeats(moment, recipe, ruler, fresh),
      ...examineSmoothing(moment, { ...fresh, takes: smoothableIn(moment, recipe, fresh.takes) }),
      ...soundFindings(snapshot, moment),
      ...examinePlayback(moment, recipe, ruler, fresh, (slot) => {
        const take = fresh.takes[slot]?.take ?? null;
        return { heard: playbackOf(snapshot, take), lips: lipsIn(snapshot, take) };
      }),
    ];
  });
  return [...flashing, ...built];
}

/** Whether the last render of a moment flashes more than is safe. */
function flashesOf({ renders }: Snapshot, moment: Moment): Finding<FlashCode>[] {
  const last = renders.find((render) => render.moment === moment.id && render.status === 'done');
  if (!last || !((last.flashes ?? 0) > mostFlashes)) return [];
  return [
    {
      code: 'film.flashes',
      severity: 'stop',
      where: { moment: moment.id },
      measured: { value: last.flashes ?? 0, unit: 'count' },
      allowed: { value: mostFlashes, unit: 'count' },
      facts: { name: moment.name },
    },
  ];
}
