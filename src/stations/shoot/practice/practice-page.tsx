'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { byGravity, type Finding } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import type { RgbaImage } from '@/core/picture/image';
import { faultWords } from '@/core/practice/faults';
import { practiceRound, type RoundTake } from '@/core/practice/round';
import type { WatchFrame } from '@/core/watch/alarms';
import { useData, useServices } from '@/ui/bench-context';
import { useWhere } from '@/ui/where';
import { openPracticeCamera } from '@/workers/practice-camera';
import { Overlay } from '../camera/overlay';
import { useWatch } from '../camera/use-watch';

const frame: WatchFrame = {
  seams: [{ name: 'the join', from: [0.5, 0], to: [0.5, 1] }],
  copies: [
    { name: 'Left', from: [0.2, 0.35], to: [0.5, 1] },
    { name: 'Right', from: [0.5, 0.35], to: [0.8, 1] },
  ],
};
const seconds = 6;
const leastLooks = 10;

type Step = 'before' | 'plate' | 'watching' | 'asking' | 'told' | 'over';
type Answer = { take: RoundTake; said: boolean; findings: Finding[] };

/** Whether what was measured makes a take unusable. A performer over the join counts, since it was asked. */
const spoilt = (findings: readonly Finding[]) => findings.length > 0;

type Practice = Awaited<ReturnType<typeof openPracticeCamera>>;

/** A round of takes in which the person says which are usable, with the measured truth after each. */
export function PracticePage() {
  const { attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const names = useData((data) => data.names);
  const { round: wanted } = useWhere();
  const video = useRef<HTMLVideoElement>(null);
  const [camera, setCamera] = useState<Practice | null>(null);
  const [round, setRound] = useState<RoundTake[]>([]);
  const [step, setStep] = useState<Step>('before');
  const [answers, setAnswers] = useState<Answer[]>([]);
  const [plate, setPlate] = useState<RgbaImage[] | null>(null);
  const [compare, setCompare] = useState(false);
  const heard = useRef<Finding[]>([]);
  const looks = useRef({ begun: 0, count: 0 });
  const { grab, check, beginAgain } = useWatch(
    video,
    camera,
    Boolean(camera),
    plate,
    frame,
    snapshot.project,
    (fresh) => {
      for (const one of fresh)
        if (!heard.current.some(({ code }) => code === one.code)) heard.current.push(one);
    },
  );
  useEffect(() => {
    if (!camera) return;
    const element = video.current;
    if (element) {
      element.srcObject = camera.stream;
      void element.play().catch(() => undefined);
    }
    return () => camera.close();
  }, [camera]);

  const now = round[answers.length] ?? null;
  const show = useCallback(
    (take: RoundTake) => {
      if (!camera) return;
      for (const fault of camera.faults()) camera.set(fault, false);
      camera.stage(take.role, take.take);
      setStep('watching');
    },
    [camera],
  );

  // The plate first: as on a set, everything is held against it.
  useEffect(() => {
    if (!camera || step !== 'plate') return;
    let here = true;
    const take = async () => {
      await new Promise((resolve) => setTimeout(resolve, 1200));
      const pictures = here ? await grab(4) : [];
      if (!here || pictures.length === 0) return;
      setPlate(pictures);
      show(round[0]);
    };
    void take();
    return () => {
      here = false;
    };
  }, [camera, step, grab, round, show]);

  useEffect(() => {
    if (!camera || step !== 'watching' || !now) return;
    looks.current = { begun: performance.now(), count: 0 };
    heard.current = [];
    void beginAgain();
    const wrong = setTimeout(() => now.fault && camera.set(now.fault, true), now.at * 1000);
    return () => clearTimeout(wrong);
  }, [camera, step, now, beginAgain]);

  // A take is over once it was long enough and the watch has looked at it often enough, on slow devices too.
  useEffect(() => {
    if (step !== 'watching' || !check) return;
    looks.current.count++;
    const { begun, count } = looks.current;
    if (count >= leastLooks && performance.now() - begun > seconds * 1000) setStep('asking');
  }, [check, step]);

  const start = () =>
    attempt(async () => {
      const opened = await openPracticeCamera();
      setRound(practiceRound(wanted === null ? Date.now() % 100_000 : Number(wanted)));
      setAnswers([]);
      setPlate(null);
      heard.current = [];
      setCamera(opened);
      setStep('plate');
    });
  const answer = (said: boolean) => {
    if (!now) return;
    setAnswers([...answers, { take: now, said, findings: byGravity(heard.current) }]);
    setStep('told');
  };
  const onward = () => {
    const next = round[answers.length];
    if (next) show(next);
    else {
      setStep('over');
      setCamera(null);
    }
  };
  const last = answers.at(-1) ?? null;
  const right = answers.filter(({ said, findings }) => said !== spoilt(findings)).length;
  const looking = step === 'plate' || step === 'watching';
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-y-auto" data-step={step}>
      <div className="relative mx-auto w-full max-w-[860px] bg-stage" style={{ aspectRatio: '16 / 9' }}>
        <video
          ref={video}
          muted
          playsInline
          className="absolute inset-0 h-full w-full"
          aria-label="The practice set"
        />
        {compare && camera && plate && <Overlay picture={plate[0]} mode="split" />}
        {(step === 'before' || step === 'over') && (
          <div className="absolute inset-0 flex items-center justify-center bg-[#10121f] p-5 text-center text-[#efe6d6]">
            <p className="max-w-[40ch] text-[17px]">
              {step === 'before'
                ? 'Five takes of a locked camera. After each one you say whether it can be joined with the plate; then you see what was measured.'
                : `${right} of ${answers.length} judged as measured.`}
            </p>
          </div>
        )}
      </div>
      <div className="mx-auto flex w-full max-w-[860px] flex-1 flex-col gap-3 px-3.5 py-3 text-[15px]">
        {step === 'plate' && (
          <p role="status">The clean plate is filmed. Look at it well: everything is held against it.</p>
        )}
        {step === 'watching' && (
          <p role="status">
            Take {answers.length + 1} of {round.length}. Watch the camera, the light, the cloth, the join in
            the middle.
          </p>
        )}
        {step === 'asking' && <p className="text-[18px] font-semibold">Can this take be used?</p>}
        {step === 'told' && last && (
          <div role="status" data-right={last.said !== spoilt(last.findings)}>
            <p className="text-[18px] font-semibold">
              {last.said !== spoilt(last.findings) ? 'As measured.' : 'Measured otherwise.'}{' '}
              {last.take.fault ? faultWords[last.take.fault].what : 'Nothing went wrong in this take.'}
            </p>
            {last.findings.length === 0 && <p>The watch found nothing that a join would not forgive.</p>}
            {last.findings.map((finding) => (
              <p
                key={finding.code}
                data-finding={finding.code}
                className="mt-1 border-l-4 border-madder bg-raised px-2.5 py-1.5"
              >
                {sayFinding(finding, names).text}
              </p>
            ))}
          </div>
        )}
        {step === 'over' && (
          <ol className="flex flex-col gap-1.5">
            {answers.map(({ take, said, findings }, index) => (
              <li key={index} className="row">
                <span>
                  {index + 1}. {take.fault ? faultWords[take.fault].name : 'Nothing went wrong'}
                </span>
                <span className={said !== spoilt(findings) ? 'text-verdigris' : 'text-madder'}>
                  you: {said ? 'use it' : 'not'} · measured: {spoilt(findings) ? 'not' : 'use it'}
                </span>
              </li>
            ))}
          </ol>
        )}
        <span className="flex-1" />
        <div className="flex flex-wrap gap-2.5 pb-2">
          {(step === 'before' || step === 'over') && (
            <button type="button" className="big flex-1 bg-ink text-ground" onClick={start}>
              {step === 'before' ? 'Begin a round' : 'Another round'}
            </button>
          )}
          {step === 'asking' && (
            <>
              <button
                type="button"
                className="big flex-1 bg-verdigris text-raised"
                onClick={() => answer(true)}
              >
                Use it
              </button>
              <button
                type="button"
                className="big flex-1 bg-madder text-raised"
                onClick={() => answer(false)}
              >
                Film it again
              </button>
            </>
          )}
          {step === 'told' && (
            <button type="button" className="big flex-1 bg-ink text-ground" onClick={onward}>
              {round[answers.length] ? 'Next take' : 'How it went'}
            </button>
          )}
          {looking && (
            <button
              type="button"
              className="knob"
              aria-pressed={compare}
              onClick={() => setCompare(!compare)}
            >
              Plate on the left half
            </button>
          )}
        </div>
      </div>
    </div>
  );
}
