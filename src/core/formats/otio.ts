import { isHeld, mediaIn, secondsAt, type MediaNode, type Node } from '../picture/node';
import { perSecond, timeOfFrame, type Rate } from '../time/rate';

type OtioValue = string | number | boolean | null | OtioValue[] | { [key: string]: OtioValue };

/** What a timeline is made of: names of files as they lie beside it, and the song. */
type TimelineInput = {
  name: string;
  rate: Rate;
  /** frames of the film that the shot covers */
  start: number;
  end: number;
  tree: Node;
  files: Record<string, { name: string; duration: number }>;
  song: { media: string } | null;
  markers: { name: string; frame: number }[];
};

const rational = (value: number, rate: Rate): OtioValue => ({
  OTIO_SCHEMA: 'RationalTime.1',
  value,
  rate: perSecond(rate),
});
const range = (start: number, duration: number, rate: Rate): OtioValue => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: rational(start, rate),
  duration: rational(duration, rate),
});

/** How a clip's speed differs from the file's own, over all of it. */
function speedEffects(node: MediaNode, until: number, rate: Rate): OtioValue[] {
  const effect = (schema: string, name: string, effect_name: string, time_scalar: number): OtioValue[] => [
    { OTIO_SCHEMA: schema, name, effect_name, time_scalar, metadata: {} },
  ];
  if (isHeld(node)) return effect('FreezeFrame.1', 'Held picture', 'FreezeFrame', 0);
  const speed = (secondsAt(node, until) - secondsAt(node, node.from)) / timeOfFrame(rate, until - node.from);
  return Math.abs(speed - 1) < 1e-6 ? [] : effect('LinearTimeWarp.1', 'Speed', 'LinearTimeWarp', speed);
}

/**
 * The shot as an OpenTimelineIO timeline: one video track a take from the back to the front, the song below.
 * Masks, movement and colour, which the format cannot say, are told in each clip's metadata.
 * @see OpenTimelineIO serialised schema: Timeline.1, Stack.1, Track.1, Clip.2, Gap.1, Marker.2, ExternalReference.1
 */
export function writeOtio(input: TimelineInput): string {
  const { rate, start, end } = input;
  const reference = (media: string): OtioValue => {
    const file = input.files[media];
    return {
      OTIO_SCHEMA: 'ExternalReference.1',
      name: file.name,
      target_url: encodeURIComponent(file.name),
      available_range: range(0, Math.floor(file.duration * perSecond(rate)), rate),
      metadata: {},
    };
  };
  const gap = (frames: number): OtioValue => ({
    OTIO_SCHEMA: 'Gap.1',
    name: '',
    source_range: range(0, frames, rate),
    effects: [],
    markers: [],
    enabled: true,
    metadata: {},
  });
  const clip = (
    name: string,
    media: string,
    from: number,
    frames: number,
    more: OtioValue,
    effects: OtioValue[] = [],
  ): OtioValue => ({
    OTIO_SCHEMA: 'Clip.2',
    name,
    source_range: range(from, frames, rate),
    media_references: { DEFAULT_MEDIA: reference(media) },
    active_media_reference_key: 'DEFAULT_MEDIA',
    effects,
    markers: [],
    enabled: true,
    metadata: { fickle_ribbon: more },
  });
  const track = (name: string, kind: 'Video' | 'Audio', children: OtioValue[]): OtioValue => ({
    OTIO_SCHEMA: 'Track.1',
    name,
    kind,
    source_range: null,
    children,
    effects: [],
    markers: [],
    enabled: true,
    metadata: {},
  });
  const pictures = mediaIn(input.tree).map((node) => {
    const until = Math.min(node.until, end);
    const told = {
      blend: node.blend,
      opacity: node.opacity as unknown as OtioValue,
      masks: node.mattes as unknown as OtioValue,
      movement: node.transforms as unknown as OtioValue,
      colour: node.grade as unknown as OtioValue,
    };
    const before = node.from > start ? [gap(node.from - start)] : [];
    const first = Math.round(secondsAt(node, node.from) * perSecond(rate));
    return track(node.name, 'Video', [
      ...before,
      clip(node.name, node.content.media, first, until - node.from, told, speedEffects(node, until, rate)),
    ]);
  });
  const sound = input.song
    ? [track('Song', 'Audio', [clip('Song', input.song.media, start, end - start, {})])]
    : [];
  const timeline: OtioValue = {
    OTIO_SCHEMA: 'Timeline.1',
    name: input.name,
    global_start_time: rational(start, rate),
    metadata: { fickle_ribbon: { seconds_at_start: timeOfFrame(rate, start) } },
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      source_range: null,
      children: [...pictures, ...sound],
      effects: [],
      markers: input.markers.map((marker) => ({
        OTIO_SCHEMA: 'Marker.2',
        name: marker.name,
        color: 'RED',
        comment: '',
        marked_range: range(marker.frame - start, 0, rate),
        metadata: {},
      })),
      enabled: true,
      metadata: {},
    },
  };
  return JSON.stringify(timeline, null, 2) + '\n';
}
