'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import type { Stretch } from '@/core/footage/action';
import type { Take } from '@/core/model/records';
import { useServices } from '@/ui/bench-context';

/** A stretch of a film, which plays from its beginning to its end. @param play what its button says */
export function FilmPart({
  take,
  stretch: { from, until },
  play,
}: {
  take: Take;
  stretch: Stretch;
  play: string;
}) {
  const { store } = useServices();
  const blob = useLiveQuery(() => store.proxies.get(take.media), [store, take.media])?.blob;
  const [runs, setRuns] = useState(false);
  const film = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    const video = film.current;
    if (!video || !blob) return;
    const url = URL.createObjectURL(blob);
    video.src = url;
    return () => URL.revokeObjectURL(url);
  }, [blob]);
  useEffect(() => {
    // A little after the cut: the seconds of a file's pictures are rounded.
    if (film.current && blob) film.current.currentTime = from + 0.01;
  }, [blob, from]);
  const press = () => {
    const video = film.current;
    if (!video) return;
    if (runs) video.pause();
    else {
      if (video.currentTime >= until - 0.05 || video.currentTime < from) video.currentTime = from + 0.01;
      void video.play();
    }
  };
  return (
    <div className="w-[320px] max-w-full phone:w-full">
      <div className="aspect-video w-full bg-stage">
        <video
          ref={film}
          muted
          playsInline
          className="h-full w-full object-contain"
          aria-label={`${take.name}, without its sound`}
          onPlay={() => setRuns(true)}
          onPause={() => setRuns(false)}
          onTimeUpdate={({ currentTarget }) => {
            if (currentTarget.currentTime >= until - 0.04) currentTarget.pause();
          }}
        />
      </div>
      <button type="button" className="knob mt-2" onClick={press}>
        {runs ? 'Stop' : play}
      </button>
    </div>
  );
}
