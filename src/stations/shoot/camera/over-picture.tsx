'use client';
import type { Take } from '@/core/model/records';
import { holdsAll, type Held } from '@/media/camera';
import { Choices } from '@/ui/choices';
import { LiveChoice } from '@/ui/live-choice';
import { askForLean, guideKinds, type GuideKind } from './guides';
import { overlayModes, type OverlayMode } from './overlay';

/** What is laid over the viewfinder, and how the camera is used. */
export type OverSettings = {
  mode: OverlayMode;
  /** a take's id, or `plate` */
  over: string;
  guides: ReadonlySet<GuideKind>;
  /** the pose of the earlier take is drawn, and what differs from it said */
  pose: boolean;
  /** alarms are heard */
  sound: boolean;
  /** the song plays to takes */
  playback: boolean;
};
export const usualOver: OverSettings = {
  mode: 'onion skin',
  over: 'plate',
  guides: new Set(['zones']),
  pose: false,
  sound: true,
  playback: false,
};

export function OverPicture({
  settings: { mode, over, guides, pose, sound, playback },
  takes,
  posed,
  held,
  hasSong,
  onChange,
  onPlate,
  onOff,
}: {
  settings: OverSettings;
  takes: readonly Take[];
  /** the take whose pose is stood in again; null where none shows somebody */
  posed: Take | null;
  held: Held | null;
  hasSong: boolean;
  onChange: (set: Partial<OverSettings>) => void;
  onPlate: () => void;
  onOff: () => void;
}) {
  return (
    <section className="flex flex-col gap-2" aria-label="Over the picture">
      <h2 className="text-[16px] font-[560]">Over the picture</h2>
      <Choices
        label="How the earlier picture is laid over"
        options={overlayModes}
        pressed={(one) => mode === one}
        onPress={(one) => onChange({ mode: one })}
      />
      <p className="text-[14px]">
        of{' '}
        <LiveChoice
          label="Earlier picture"
          value={over}
          options={[
            { value: 'plate', text: 'the plate' },
            ...takes.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onChange={(one) => onChange({ over: one })}
        />
      </p>
      <div>
        <button type="button" className="knob" aria-pressed={pose} onClick={() => onChange({ pose: !pose })}>
          Stand as before
        </button>
        {pose && (
          <p className="mt-1 text-[14px]" data-testid="posed">
            {posed
              ? `The pose is the one in the middle of ${posed.name}. Left and right are the picture’s; of feet and hands, the performer’s.`
              : 'Choose a take above whose pose is to be stood in again; none of this setup shows one yet.'}
          </p>
        )}
      </div>
      <Choices
        label="Guides"
        options={guideKinds}
        pressed={(kind) => guides.has(kind)}
        onPress={(kind) => {
          if (kind === 'level') void askForLean();
          const rest = [...guides].filter((one) => one !== kind);
          onChange({ guides: new Set(guides.has(kind) ? rest : [...rest, kind]) });
        }}
      />
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="knob"
          aria-pressed={sound}
          onClick={() => onChange({ sound: !sound })}
        >
          Alarm sounds
        </button>
        {hasSong && (
          <button
            type="button"
            className="knob"
            aria-pressed={playback}
            onClick={() => onChange({ playback: !playback })}
          >
            Play the song to takes
          </button>
        )}
        <button type="button" className="knob" onClick={onPlate}>
          This is the plate now
        </button>
        <button type="button" className="knob" onClick={onOff}>
          Camera off
        </button>
      </div>
      {held && !holdsAll(held) && (
        <p className="text-[14px]" data-testid="draft">
          This camera cannot hold{' '}
          {[!held.exposure && 'exposure', !held.focus && 'focus', !held.white && 'white balance']
            .filter(Boolean)
            .join(', ')}{' '}
          here: takes are marked as drafts. For the film itself use the camera’s own application, and Quick
          check.
        </p>
      )}
    </section>
  );
}
