'use client';
import { useEffect, useState } from 'react';
import { fileName } from '@/core/formats/file-name';
import type { Moment, Project } from '@/core/model/records';
import { deliveryRates, perSecond, rateLabel, timeOfFrame } from '@/core/time/rate';
import { beatLabel } from '@/core/time/grid';
import { formatTimecode } from '@/core/time/timecode';
import { writableContainers, type Container } from '@/media/writer';
import type { Render } from '@/store/db';
import { setProject } from '@/store/commands/projects';
import { tidyRenders } from '@/workers/tidy';
import { askRender, removeRender, renderKey } from '@/store/commands/renders';
import { buildable, framesOf, type Buildable } from '@/store/material';
import { rulerOf } from '@/store/snapshot';
import { soundsOf } from '@/store/sounds';
import { openMedia } from '@/workers/clients';
import { soundTasksOf } from '@/workers/sound-tasks';
import { useOffer } from '@/ui/actions/offers';
import { useData, useServices } from '@/ui/bench-context';
import { Findings, Reading } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Term } from '@/ui/term';
import { Empty, Part, Station } from '../station';
import { captionsOf, csvOf, timelineOf } from './exports';
import { PainterNote } from './painter-note';
import { saveFile } from '../save';

const question = 'Is it ready to leave?';
const containers: { value: Container; text: string; lacking: string }[] = [
  {
    value: 'mp4',
    text: 'MP4, H.264 and AAC',
    lacking: 'this browser cannot write AAC; MOV carries the same pictures',
  },
  { value: 'mov', text: 'MOV, H.264 and PCM', lacking: 'this browser cannot write H.264' },
  { value: 'webm', text: 'WebM, VP9 and Opus', lacking: 'this browser cannot write VP9' },
];

/** Hands a moment over: as video, as a timeline, as numbers. */
export function DeliverStation() {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const chosen = useData((data) => data.builtMoment);
  const ruler = rulerOf(snapshot);
  if (!ruler || !chosen) {
    return (
      <Station question={question}>
        <Empty title="There is no moment yet">
          <p>
            Make one on the song, choose its takes, and it can be rendered here and handed over as numbers for
            any editor.
          </p>
          <button type="button" className="knob main" onClick={() => go({ station: 'song' })}>
            To the song
          </button>
        </Empty>
      </Station>
    );
  }
  const able = buildable(snapshot, chosen);
  const frames = framesOf(snapshot, chosen);
  return able && frames && <DeliverMoment moment={chosen} able={able} frames={frames} />;
}

function useWritable(project: Project): Record<Container, boolean> | null {
  const [writable, setWritable] = useState<Record<Container, boolean> | null>(null);
  const { width, height } = project;
  useEffect(() => {
    let here = true;
    void writableContainers({ width, height }).then((found) => here && setWritable(found));
    return () => {
      here = false;
    };
  }, [width, height]);
  return writable;
}

function DeliverMoment({
  moment,
  able: { ruler, recipe },
  frames,
}: {
  moment: Moment;
  able: Buildable;
  frames: { start: number; lands: number; end: number };
}) {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const { project } = snapshot;
  const writable = useWritable(project);
  const lands = recipe.anchors(moment, ruler).find(({ marks }) => marks);
  const count = frames.end - frames.start;
  const sounds = soundsOf(snapshot, moment);
  const set = (label: Partial<Project>) => attempt(() => setProject(store, project.id, label));
  const mine = findings.build.filter(
    (finding) => finding.where.moment === moment.id && finding.severity !== 'fine',
  );
  const stops = mine.filter((finding) => finding.severity === 'stop');
  const base = fileName(moment.name, 'moment');
  const render = () => attempt(() => askRender(store, project.id, moment.id, base));
  const give = (name: string, content: string | null, type: string) =>
    content && saveFile(name, content, type);
  const unable = stops.length > 0 || (writable !== null && !writable[project.container]);
  useOffer([
    {
      id: 'render',
      text: 'Render the shot',
      scope: 'picture',
      keys: ['e'],
      run: () => unable || void render(),
    },
  ]);
  return (
    <Station
      question={question}
      sub={
        <LiveChoice
          label="Moment"
          value={moment.id}
          options={snapshot.built.map((one) => ({ value: one.id, text: one.name }))}
          onChange={(id) => go({ moment: id })}
        />
      }
      side={
        <>
          <Part title="The shot">
            <Reading name="Frames" value={`${count} · ${timeOfFrame(project.rate, count).toFixed(3)} s`} />
            <Reading
              name="From"
              value={`${formatTimecode(frames.start, project.rate)} · frame ${frames.start}`}
            />
            <Reading
              name={lands?.marks ?? 'Lands'}
              value={`${formatTimecode(frames.lands, project.rate)} · frame ${frames.lands}`}
            />
            <Reading name="In the shot" value={`frame ${frames.lands - frames.start}`} />
            <Reading
              name="Until"
              value={`${formatTimecode(frames.end, project.rate)} · frame ${frames.end}`}
            />
            <Reading
              name="About"
              value={`${((project.megabits * timeOfFrame(project.rate, count)) / 8).toFixed(0)} MB`}
              hint="Pictures alone, at the chosen rate of bits"
            />
          </Part>
          <Part title="Before it leaves">
            {mine.length > 0 ? (
              <Findings findings={mine} />
            ) : (
              <p className="text-ink2">Nothing is in its way.</p>
            )}
          </Part>
          <Part title="Who paints">
            <PainterNote />
          </Part>
        </>
      }
    >
      <div className="flex flex-col gap-6 px-6 py-6 phone:px-4">
        <section className="max-w-[74ch]">
          <p className="font-serif text-[19px] leading-[1.9]">
            {moment.name} leaves as{' '}
            <LiveChoice
              label="Kind of file"
              value={project.container}
              dye="var(--madder)"
              options={containers.map((one) => {
                const lacking = writable !== null && !writable[one.value];
                return {
                  value: one.value,
                  text: one.text,
                  disabled: lacking,
                  why: lacking ? one.lacking : undefined,
                };
              })}
              onChange={(container) => set({ container: container as Container })}
            />
            ,{' '}
            <LiveNumber
              label="Width"
              value={project.width}
              step={2}
              min={16}
              max={8192}
              show={(value) => `${value} px`}
              dye="var(--madder)"
              onChange={(width) => set({ width: Math.round(width / 2) * 2 })}
            />{' '}
            ×{' '}
            <LiveNumber
              label="Height"
              value={project.height}
              step={2}
              min={16}
              max={8192}
              show={(value) => `${value} px`}
              dye="var(--madder)"
              onChange={(height) => set({ height: Math.round(height / 2) * 2 })}
            />
            , at{' '}
            <LiveChoice
              label="Frame rate"
              value={`${project.rate.num}/${project.rate.den}`}
              dye="var(--madder)"
              options={deliveryRates.map((rate) => ({
                value: `${rate.num}/${rate.den}`,
                text: `${rateLabel(rate)} frames/s`,
              }))}
              onChange={(value) => {
                const [num, den] = value.split('/').map(Number);
                void set({ rate: { num, den } });
              }}
            />{' '}
            and{' '}
            <LiveNumber
              label="Bits a second"
              value={project.megabits}
              step={1}
              min={1}
              max={200}
              show={(value) => `${value} Mbit/s`}
              also={(value) => `${((value * 1e6) / perSecond(project.rate) / 8000).toFixed(0)} kB a picture`}
              dye="var(--madder)"
              onChange={(megabits) => set({ megabits })}
            />
            , from {beatLabel(ruler.grid, moment.start)} until {beatLabel(ruler.grid, moment.end)}, with the
            song{sounds.length > 0 ? ' and its sounds' : ''} under it. {lands?.title ?? 'It lands on'} frame{' '}
            {frames.lands - frames.start} of the file.
          </p>
          <div className="mt-4 flex flex-wrap items-center gap-2">
            <button type="button" className="knob main" onClick={render} disabled={unable}>
              Render the shot
            </button>
            {stops.length > 0 && (
              <span className="text-madder">Something stops it: see “Before it leaves”.</span>
            )}
            {writable !== null && !writable[project.container] && (
              <span className="text-madder">
                This browser cannot write that. Choose another kind of file.
              </span>
            )}
          </div>
        </section>
        <Renders moment={moment} />
        <Part title="For your editor">
          <div className="flex flex-wrap gap-2">
            <button
              type="button"
              className="knob"
              onClick={() => give(`${base}.otio`, timelineOf(snapshot, moment), 'application/json')}
            >
              Timeline (OpenTimelineIO)
            </button>
            <button
              type="button"
              className="knob"
              onClick={() => give(`${base}-keyframes.csv`, csvOf(snapshot, moment), 'text/csv')}
            >
              Keyframes (CSV)
            </button>
            <button
              type="button"
              className="knob"
              onClick={() => go({ station: 'sheet', moment: moment.id })}
            >
              Keyframes to print
            </button>
            <button
              type="button"
              className="knob"
              onClick={() =>
                attempt(async () => {
                  const media = snapshot.song?.media;
                  const row = media && (await store.proxies.get(media));
                  if (row) saveFile('song.wav', row.blob);
                })
              }
            >
              Song (WAV)
            </button>
            {sounds.length > 0 && (
              <button
                type="button"
                className="knob"
                onClick={() =>
                  attempt(async () => {
                    const worker = openMedia();
                    const wav = await worker.api
                      .soundsAlone(
                        await soundTasksOf(store, sounds),
                        timeOfFrame(project.rate, frames.start),
                        timeOfFrame(project.rate, count),
                      )
                      .finally(() => worker.end());
                    saveFile(`${base}-sounds.wav`, wav);
                  })
                }
              >
                Sounds (WAV)
              </button>
            )}
          </div>
          <p className="mt-2 max-w-[64ch] text-[12px] text-ink2">
            The timeline names your own files; put it beside them. <Term word="mask">Masks</Term>, steadying
            and colour are in its notes and, in plain words, on the keyframe sheet.
          </p>
        </Part>
      </div>
    </Station>
  );
}

/** What was rendered of a moment. */
function Renders({ moment }: { moment: Moment }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const mine = snapshot.renders.filter((render) => render.moment === moment.id);
  const [watched, setWatched] = useState<{ id: string; film: string; words: string } | null>(null);
  useEffect(
    () => () => {
      for (const url of watched ? [watched.film, watched.words] : []) URL.revokeObjectURL(url);
    },
    [watched],
  );
  if (mine.length === 0) return null;
  const watch = (render: Render) =>
    render.blob &&
    setWatched({
      id: render.id,
      film: URL.createObjectURL(render.blob),
      words: URL.createObjectURL(new Blob([captionsOf(snapshot, moment)], { type: 'text/vtt' })),
    });
  return (
    <Part title="Rendered">
      <ul className="flex max-w-[74ch] flex-col gap-2">
        {mine.map((render) => (
          <li
            key={render.id}
            data-render={render.status}
            className="flex flex-wrap items-center gap-2 border-b border-dotted border-line pb-2"
          >
            <span className="num min-w-0 flex-1 truncate">{render.name}</span>
            {render.status === 'done' && render.blob ? (
              <>
                <span className="num text-ink2">{(render.blob.size / 1e6).toFixed(1)} MB</span>
                <button type="button" className="knob" onClick={() => watch(render)}>
                  Watch
                </button>
                <button
                  type="button"
                  className="knob main"
                  onClick={() => render.blob && saveFile(render.name, render.blob)}
                >
                  Save
                </button>
              </>
            ) : (
              <span className="text-ink2">
                {snapshot.halted.has(renderKey(render.id))
                  ? 'Ended before it was done; see below.'
                  : 'In work; it goes on after a reload.'}
              </span>
            )}
            <button
              type="button"
              className="knob"
              aria-label={`Remove ${render.name}`}
              onClick={() =>
                attempt(async () => {
                  await removeRender(store, render.project, render.id);
                  await tidyRenders(store);
                })
              }
            >
              Remove
            </button>
            {watched?.id === render.id && (
              <video controls autoPlay loop src={watched.film} className="w-full bg-stage">
                <track kind="captions" label="Words of the song" src={watched.words} />
              </video>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}
