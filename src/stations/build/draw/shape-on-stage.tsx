'use client';
import { useState } from 'react';
import type { Point } from '@/core/geometry/size';
import type { Moment, Project } from '@/core/model/records';
import type { Outline } from '@/core/recipes/recipe';
import { areaOf, brushed, lassoed, rounded } from '@/core/shapes/draw';
import { setMoment } from '@/store/commands/moments';
import { useAhead } from '@/ui/ahead';
import { useServices } from '@/ui/bench-context';
import { Choices } from '@/ui/choices';
import { LiveNumber } from '@/ui/live-number';
import { say } from '@/ui/say';
import { SeamLine } from '@/ui/stage/seam-line';
import type { Frame } from '@/ui/stage/stage';
import { DrawPad } from './draw-pad';

const tools = [
  { id: 'points', text: 'Points', title: 'Drag its points' },
  { id: 'anew', text: 'Draw it anew', title: 'Draw a line round it' },
  { id: 'adds', text: 'Brush more', title: 'Paint over what belongs to it' },
  { id: 'takes', text: 'Brush away', title: 'Paint over what does not belong to it' },
] as const;
type Tool = (typeof tools)[number]['id'];
const brushes: readonly Tool[] = ['adds', 'takes'];

/** What is put right by strokes is brushed alone. */
const toolFor = (outline: Outline, tool: Tool): Tool =>
  outline.mend && !brushes.includes(tool) ? 'adds' : tool;

/** a brush that changes less than this share of the frame has changed nothing */
const unseen = 0.0004;

/** What a drawn shape is worked on with, and how wide the brush is, in per cent of the frame's width. */
export function useShapeTools() {
  const [tool, setTool] = useState<Tool>('points');
  const [wide, setWide] = useState(5);
  return { tool, setTool, wide, setWide };
}
type ShapeTools = ReturnType<typeof useShapeTools>;

/** A shape of a moment on the picture: its points, or a pad to draw and paint it on. */
export function ShapeOnStage({
  moment,
  project,
  outline,
  frame,
  tools: { tool, wide },
}: {
  moment: Moment;
  project: Project;
  outline: Outline;
  frame: Frame;
  tools: ShapeTools;
}) {
  const { store, attempt } = useServices();
  const ahead = useAhead<Point[]>();
  const save = (label: string, points: Point[]) => {
    const done = attempt(() =>
      setMoment(store, project.id, moment.id, `${label} ${outline.title}`, {
        [`settings.${outline.setting}`]: outline.drawn ? outline.drawn(points) : points,
      }),
    );
    ahead.send('ring', points, done);
    return done;
  };
  const mend = outline.mend;
  const brushing = toolFor(outline, tool);
  const draw = (path: Point[]) => {
    if (mend) {
      const keep = brushing === 'adds';
      void attempt(() =>
        setMoment(store, project.id, moment.id, keep ? 'Keep by a stroke' : 'Drop by a stroke', {
          [`settings.${outline.setting}`]: mend({ keep, points: path, wide: wide / 100 }),
        }),
      );
    } else if (tool === 'anew') {
      const drawn = lassoed(path, project);
      if (drawn) void save('Draw', drawn);
      else
        say('refused', 'This line goes round nothing. Draw it all the way round; the shape stays as it was.');
    } else if (tool !== 'points') {
      const before = ahead.newest('ring', outline.rings[0]);
      const after = brushed(before, path, wide / 200, tool, project);
      if (Math.abs(areaOf(after) - areaOf(before)) > unseen) void save('Brush', after);
      else
        say(
          'known',
          'The shape stays as it was: what is painted apart from it is left out. Begin on its edge.',
        );
    }
  };
  return (
    <>
      {outline.rings.length > 0 && (
        <SeamLine
          frame={frame}
          rings={outline.rings}
          title={outline.title}
          onChange={brushing === 'points' ? (points) => save('Drag', points) : undefined}
        />
      )}
      {brushing !== 'points' && (
        <DrawPad
          frame={frame}
          label={
            brushing === 'anew'
              ? `Draw ${outline.title} anew`
              : `Brush ${brushing === 'adds' ? 'more to' : 'away from'} ${outline.title}`
          }
          brush={brushing === 'anew' ? null : wide / 100}
          onDraw={draw}
        />
      )}
    </>
  );
}

/** Chooses what a shape is worked on with, and says on which frames it has a form of its own. */
export function ShapeToolKnobs({
  moment,
  project,
  outline,
  tools: { tool, setTool, wide, setWide },
}: {
  moment: Moment;
  project: Project;
  outline: Outline;
  tools: ShapeTools;
}) {
  const { store, attempt } = useServices();
  const inHand = toolFor(outline, tool);
  const { keys, without, setting, title, drawn, rings, mend } = outline;
  const round = () => {
    const ring = rounded(rings[0], project);
    return attempt(() =>
      setMoment(store, moment.project, moment.id, `Round the corners of ${title}`, {
        [`settings.${setting}`]: drawn ? drawn(ring) : ring,
      }),
    );
  };
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-line bg-raised px-5 py-2 phone:px-3">
      <Choices
        label="What the shape is drawn with"
        options={mend ? tools.filter(({ id }) => brushes.includes(id)) : tools}
        pressed={(id) => id === inHand}
        onPress={setTool}
        strip
      />
      {brushes.includes(inHand) && (
        <span className="font-serif text-[15px]">
          brush{' '}
          <LiveNumber
            label="Width of the brush"
            value={wide}
            step={0.5}
            min={0.5}
            max={40}
            show={(value) => `${value} % wide`}
            onChange={setWide}
          />
        </span>
      )}
      {!mend && (
        <button type="button" className="knob" onClick={() => void round()}>
          Round its corners
        </button>
      )}
      {mend && (
        <span className="text-[12px] text-ink2" data-testid="mends">
          {keys && keys.length > 0
            ? `Strokes on frame${keys.length === 1 ? ' ' : 's '}${keys.join(', ')} mend the pictures round them too.`
            : 'A stroke takes what looks like what is under it, up to the next edge, here and in the pictures round it.'}
        </span>
      )}
      {keys && !mend && (
        <span className="text-[12px] text-ink2" data-testid="shape-keys">
          Its shape is set on frame{keys.length === 1 ? ' ' : 's '}
          {keys.join(', ')}
          {keys.length === 1 ? '.' : '; between them it moves.'} Step to a frame and draw to set it there.
        </span>
      )}
      {without !== undefined && (
        <button
          type="button"
          className="knob"
          onClick={() =>
            attempt(() =>
              setMoment(
                store,
                moment.project,
                moment.id,
                mend ? 'Take strokes out' : `Take a key of ${title} out`,
                {
                  [`settings.${setting}`]: without,
                },
              ),
            )
          }
        >
          {mend ? 'Take this frame’s strokes out' : 'Take this frame’s out'}
        </button>
      )}
    </div>
  );
}
