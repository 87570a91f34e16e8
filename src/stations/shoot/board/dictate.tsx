'use client';
import { useEffect, useRef, useState } from 'react';

type Recognition = EventTarget & {
  lang: string;
  continuous: boolean;
  processLocally?: boolean;
  start: () => void;
  stop: () => void;
};
type RecognitionClass = (new () => Recognition) & {
  available?: (options: { langs: string[]; processLocally: boolean }) => Promise<string>;
};

/**
 * Notes by voice, offered only where the browser understands speech on the device itself: nothing that is said on
 * a set leaves it. Elsewhere the microphone key of a phone's own keyboard does the same.
 */
export function Dictate({ onWords }: { onWords: (text: string) => void }) {
  const [can, setCan] = useState(false);
  const [listening, setListening] = useState<Recognition | null>(null);
  const heard = useRef(onWords);
  useEffect(() => {
    heard.current = onWords;
  });
  useEffect(() => {
    let here = true;
    const Speech = (window as { SpeechRecognition?: RecognitionClass }).SpeechRecognition;
    void Speech?.available?.({ langs: [navigator.language], processLocally: true })
      .then((answer) => here && setCan(answer === 'available'))
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, []);
  useEffect(() => () => listening?.stop(), [listening]);
  if (!can) return null;
  const begin = () => {
    const Speech = (window as unknown as { SpeechRecognition: RecognitionClass }).SpeechRecognition;
    const speech = new Speech();
    speech.lang = navigator.language;
    speech.continuous = true;
    speech.processLocally = true;
    speech.addEventListener('result', (event) => {
      const { results, resultIndex } = event as Event & {
        results: ArrayLike<ArrayLike<{ transcript: string }> & { isFinal: boolean }>;
        resultIndex: number;
      };
      const result = results[resultIndex];
      if (result?.isFinal) heard.current(result[0].transcript.trim());
    });
    speech.addEventListener('end', () => setListening(null));
    speech.start();
    setListening(speech);
  };
  return (
    <button
      type="button"
      className="knob"
      aria-pressed={Boolean(listening)}
      onClick={() => (listening ? listening.stop() : begin())}
    >
      {listening ? 'Stop listening' : 'Speak a note'}
    </button>
  );
}
