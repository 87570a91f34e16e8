'use client';
import { useState } from 'react';
import type { Setup, Zone } from '@/core/model/plan-records';
import { addZone } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { useSize } from '@/ui/use-size';
import { useWhere } from '@/ui/where';
import { zoneNames } from '../dyes';
import { useSetupDraft } from '../use-setup-draft';
import { LensView } from './lens-view';
import { OrderThread } from '../order/order-thread';
import { ShotDetail } from '../order/shot-detail';
import { SetupSentence } from './setup-sentence';
import { TopView } from './top-view';

const inTheMiddle = (setup: string, what: Zone['what']) => ({
  setup,
  what,
  name: `New ${zoneNames[what]}`,
  from: (what === 'seam' ? [0.5, 0] : [0.4, 0.4]) as [number, number],
  to: (what === 'seam' ? [0.5, 1] : [0.6, 0.6]) as [number, number],
});

/** Two views of one room: from above to scale, and through the lens; each can be dragged in either. */
export function RoomPage({ setup }: { setup: Setup }) {
  const { store, attempt } = useServices();
  const plan = useData((data) => data.plan);
  const [drawing, setDrawing] = useState<Zone['what'] | null>(null);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const { shown, numbers, draft } = useSetupDraft(setup);
  const slots = plan.schedule.slots.filter(({ shot }) => shot.setup === setup.id);
  const { shot } = useWhere();
  const chosen = slots.find((slot) => slot.shot.id === shot);
  if (!numbers) return null;
  const narrow = width < 620;
  const shape = setup.capture.height / setup.capture.width;
  const lensWidth = Math.min(narrow ? width : Math.round(width * 0.62), Math.round(430 / shape));
  const topWidth = narrow ? width : width - lensWidth - 20;
  const topHeight = narrow ? 320 : Math.max(260, Math.round(lensWidth * shape));
  return (
    <div className="flex flex-col gap-3 p-5 phone:p-3">
      <div ref={ref} className="flex gap-5 phone:flex-col">
        {width > 0 && (
          <>
            <section>
              <h2 className="mb-1 text-[15px] font-[560]">From above</h2>
              <TopView setup={shown} numbers={numbers} width={topWidth} height={topHeight} />
            </section>
            <section>
              <h2 className="mb-1 text-[15px] font-[560]">Through the lens</h2>
              <LensView
                setup={shown}
                numbers={numbers}
                width={lensWidth}
                drawing={drawing}
                onDrawn={() => setDrawing(null)}
              />
            </section>
          </>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-1.5" role="group" aria-label="Draw on the picture">
        <span className="text-ink2">Draw a</span>
        {(Object.keys(zoneNames) as Zone['what'][]).map((what) => (
          <button
            key={what}
            type="button"
            className="knob"
            aria-pressed={drawing === what}
            onClick={(event) => {
              // Chosen with the keyboard it is laid in the middle, to be moved with the arrow keys.
              if (event.detail === 0)
                void attempt(() => addZone(store, setup.project, inTheMiddle(setup.id, what)));
              else setDrawing(drawing === what ? null : what);
            }}
          >
            {zoneNames[what]}
          </button>
        ))}
        {drawing && <span className="text-ink2">Now drag over the picture.</span>}
      </div>
      <SetupSentence setup={setup} draft={draft} />
      {width > 560 && (
        <section>
          <h2 className="mb-1 text-[15px] font-[560]">In this order, here</h2>
          <OrderThread slots={slots} width={width} />
          {chosen && (
            <div
              className="max-w-[62ch] border-l-4 border-woad bg-raised px-3 py-2"
              data-detail={chosen.shot.id}
            >
              <h3 className="text-[15px] font-[560]">{chosen.shot.title}</h3>
              <ShotDetail slot={chosen} />
            </div>
          )}
        </section>
      )}
    </div>
  );
}
