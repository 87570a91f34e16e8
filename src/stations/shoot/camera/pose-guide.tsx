'use client';
import type { Point } from '@/core/geometry/size';
import type { PoseMatch } from '@/core/people/compare-poses';
import { bodyLines, isSeen, type Pose } from '@/core/people/pose';
import { sayPose } from '@/core/people/pose-words';
import { useUnits } from '@/ui/live-length';
import type { PoseWatch } from './use-pose';

/** arrows that are drawn at the most: the next things to do */
const mostArrows = 3;

/** An earlier pose over the viewfinder, with arrows to where things have to go, and what to do next in words. */
export function PoseGuide({ watch, of }: { watch: PoseWatch | null; of: string }) {
  const units = useUnits();
  if (!watch) return null;
  const said = {
    begins: 'Finding the earlier pose. What finds people (21 MB) is fetched the first time.',
    'nobody earlier': `Nobody is found in the middle of ${of}. Choose another take under Over the picture.`,
    'another shape': `${of} has another shape than this picture: its pose cannot be laid over.`,
    trouble: watch.state === 'trouble' ? watch.message : '',
    seen:
      watch.state !== 'seen'
        ? ''
        : watch.match
          ? sayPose(watch.match, units)
          : watch.match === null
            ? 'Nobody is found before the camera yet, or too little of them.'
            : 'Looking for whoever stands before the camera …',
  }[watch.state];
  return (
    <>
      {watch.state === 'seen' && (
        <svg
          viewBox={`0 0 ${100 * watch.ratio} 100`}
          className="absolute inset-0 h-full w-full"
          role="img"
          aria-label={`The pose in ${of}`}
          data-testid="pose"
        >
          <Body pose={watch.earlier} ratio={watch.ratio} />
          {watch.match && <Arrows match={watch.match} ratio={watch.ratio} />}
        </svg>
      )}
      <p
        role="status"
        data-testid="pose-words"
        className="absolute right-2 bottom-2 max-w-[min(34ch,70%)] border-l-4 border-[#f2b252] bg-ground/85 px-2.5 py-1 text-[15px] font-semibold low:text-[14px]"
      >
        {said}
      </p>
    </>
  );
}

function Body({ pose, ratio }: { pose: Pose; ratio: number }) {
  const lines = bodyLines.filter((line) => line.every((joint) => isSeen(pose[joint])));
  const [nose] = pose;
  return (
    <g fill="none" stroke="#fff" strokeOpacity={0.85} strokeWidth={0.9} strokeLinecap="round">
      {lines.map(([from, to]) => (
        <line
          key={`${from} ${to}`}
          x1={100 * ratio * pose[from].x}
          y1={100 * pose[from].y}
          x2={100 * ratio * pose[to].x}
          y2={100 * pose[to].y}
          strokeDasharray="2 1.6"
        />
      ))}
      {isSeen(nose) && <circle cx={100 * ratio * nose.x} cy={100 * nose.y} r={1.6} />}
    </g>
  );
}

function Arrows({ match: { whole, parts }, ratio }: { match: PoseMatch; ratio: number }) {
  const at = ([x, y]: Point): Point => [100 * ratio * x, 100 * y];
  return [...(whole ? [whole] : []), ...parts].slice(0, mostArrows).map((step) => {
    const [[x, y], [toX, toY]] = [at(step.from), at(step.to)];
    const long = Math.hypot(toX - x, toY - y);
    const [right, down] = [(toX - x) / long, (toY - y) / long];
    const barb = (side: number): string =>
      `${toX - 2.2 * right - side * 1.4 * down},${toY - 2.2 * down + side * 1.4 * right}`;
    return (
      <path
        key={'part' in step ? String(step.part) : 'whole'}
        d={`M${x},${y} L${toX},${toY} M${barb(1)} L${toX},${toY} L${barb(-1)}`}
        fill="none"
        stroke="#f2b252"
        strokeWidth={1.1}
        strokeLinecap="round"
      />
    );
  });
}
