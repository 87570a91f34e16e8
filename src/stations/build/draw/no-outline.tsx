'use client';

/** The frame nearest to one on which something is so; undefined where it is on none. */
function nearest(
  frame: number,
  { start, end }: { start: number; end: number },
  isSo: (frame: number) => boolean,
): number | undefined {
  for (let away = 1; away < end - start; away++)
    for (const next of [frame - away, frame + away])
      if (next >= start && next < end && isSo(next)) return next;
  return undefined;
}

/** What a view of an outline says on a frame that has none, with the way to the nearest one that has. */
export function NoOutline({
  frame,
  span,
  isOutlined,
  onGo,
}: {
  frame: number;
  span: { start: number; end: number };
  isOutlined: (frame: number) => boolean;
  onGo: (frame: number) => void;
}) {
  const next = nearest(frame, span, isOutlined);
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-line bg-raised px-5 py-2 phone:px-3">
      <span className="font-serif text-[15px]">Nothing has an outline on this frame.</span>
      {next !== undefined && (
        <button type="button" className="knob" onClick={() => onGo(next)}>
          Go to frame {next}
        </button>
      )}
    </div>
  );
}
