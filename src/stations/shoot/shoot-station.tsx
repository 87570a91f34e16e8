'use client';
import { useState } from 'react';
import type { Setup } from '@/core/model/plan-records';
import { barAndBeat } from '@/core/time/grid';
import type { Board, BoardRow } from '@/core/shoot/board';
import { passageOf } from '@/core/shoot/passage';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { usePhone } from '@/ui/use-phone';
import { useWhere } from '@/ui/where';
import { AddSetup } from '../plan/add-setup';
import { Empty, Station } from '../station';
import { BoardList } from './board/board-list';
import { CautionPart } from './board/caution-part';
import { MatchFiles } from './board/match-files';
import { StrikePart } from './board/strike-part';
import { TakeBar } from './board/take-bar';
import { TakeSheet } from './board/take-sheet';
import { TryMoments } from './board/try-moments';
import { useRough } from './board/use-rough';
import { CameraPage } from './camera/camera-page';
import { CarryPage } from './carry/carry-page';
import { PracticePage } from './practice/practice-page';
import { SlateScreen } from './slate/slate-screen';
import { useAwake } from './use-awake';
import { useTake } from './use-take';
import { shootParts, type ShootPart } from './words';

const question = 'What is still missing before this set is struck?';

/** On the set: what is missing, the slate, the camera, practice, and the way home. */
export function ShootStation() {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const where = useWhere();
  const part: ShootPart = shootParts.find(({ id }) => id === where.part)?.id ?? 'board';
  const { setups } = snapshot;
  const setup = setups.find(({ id }) => id === where.setup) ?? setups[0] ?? null;
  const board = plan.boards.find((one) => one.setup === setup?.id) ?? null;
  const row = board?.rows.find(({ id }) => id === where.shot) ?? board?.next ?? board?.rows[0] ?? null;
  const held = setup && `f/${setup.aperture} · 1/${setup.shutter} · ISO ${setup.iso} · ${setup.kelvin} K`;
  return (
    <div className="shoot flex min-h-0 flex-1 flex-col">
      <Station
        question={question}
        fixed
        sub={
          setup && (
            <span className="flex flex-wrap items-center gap-x-2">
              <LiveChoice
                label="Setup"
                value={setup.id}
                options={setups.map(({ id, name }) => ({ value: id, text: name }))}
                onChange={(id) => go({ setup: id, shot: null })}
              />
              <span className="num">{held}</span>
            </span>
          )
        }
        parts={{ options: shootParts, shown: part, onShow: (id) => go({ part: id }) }}
      >
        {part === 'practice' && <PracticePage />}
        {part === 'carry' && <CarryPage setup={setup} />}
        {part === 'board' && board && setup && (
          <BoardPage key={setup.id} board={board} row={row} setup={setup} />
        )}
        {part === 'camera' && board && setup && (
          <CameraPage key={setup.id} board={board} row={row} setup={setup} variation={wantedVariation(row)} />
        )}
        {(part === 'board' || part === 'camera') && !board && (
          <Empty title="There is no setup to film in yet">
            <p>
              A setup is one camera in one place and light. Add the first one, and the board lists every shot
              that the moments need there. The practice camera can be tried without one.
            </p>
            <AddSetup />
            <button type="button" className="knob" onClick={() => go({ part: 'practice' })}>
              To the practice camera
            </button>
          </Empty>
        )}
      </Station>
    </div>
  );
}

/** The variation to film next: the first that is asked for and has no good take. */
const wantedVariation = (row: BoardRow | null): string =>
  row?.variations.find(({ asked, good }) => asked && good === 0)?.name ?? '';

function BoardPage({ board, row, setup }: { board: Board; row: BoardRow | null; setup: Setup }) {
  const { attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const phone = usePhone();
  const [slate, setSlate] = useState(false);
  const { running, stop } = useTake(board);
  const rough = useRough(board);
  const { song } = snapshot;
  useAwake();
  if (board.rows.length === 0) {
    return (
      <Empty title="No shot is planned here">
        <p>
          Nothing of the plan is filmed in {setup.name}. Choose another setup above, or set a moment’s place
          in Plan.
        </p>
        <button type="button" className="knob main" onClick={() => go({ station: 'plan', part: null })}>
          To the plan
        </button>
      </Empty>
    );
  }
  const end = songMeasure(snapshot)?.song.duration ?? 0;
  const passage = song?.grid ? passageOf(row?.shot ?? null, snapshot, end) : null;
  const bar = passage && song?.grid ? ` · plays from bar ${barAndBeat(song.grid, passage.from).bar}` : '';
  const mine = findings.shoot.filter(({ where }) => where.setup === setup.id);
  const over = board.ready || board.struck !== null;
  const ofShot = (
    <>
      {row && !row.done && <CautionPart row={row} setup={setup.id} />}
      {row && <TakeSheet key={row.id} row={row} />}
      {row?.done && <CautionPart row={row} setup={setup.id} />}
    </>
  );
  const ofSetup = (
    <>
      <Findings findings={mine} />
      <TryMoments board={board} rough={rough} />
      {!over && <StrikePart board={board} rough={rough} />}
    </>
  );
  return (
    <div className="flex min-h-0 flex-1">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col low:flex-row">
        <div className="min-h-0 min-w-0 flex-1 overflow-y-auto">
          {over && (
            <div className="px-3.5 pt-3">
              <StrikePart board={board} rough={rough} />
            </div>
          )}
          <MatchFiles board={board} />
          <BoardList
            board={board}
            chosen={row}
            onChoose={({ id }) => go({ shot: id })}
            detail={
              phone && (
                <div className="flex flex-col gap-5 bg-raised px-3 pt-2 pb-4" data-detail={row?.id}>
                  {ofShot}
                </div>
              )
            }
          />
          {phone && <div className="flex flex-col gap-5 px-3.5 pb-5">{ofSetup}</div>}
        </div>
        <TakeBar
          board={board}
          row={row}
          begin={`Slate take #${bar}`}
          onBegin={() => setSlate(true)}
          onStop={() => attempt(async () => running && stop(running))}
        />
      </div>
      {!phone && (
        <aside
          aria-label="Detail"
          className="flex w-[380px] flex-none flex-col gap-5 overflow-y-auto border-l border-line bg-raised px-4 py-3.5"
        >
          {ofShot}
          {ofSetup}
        </aside>
      )}
      {slate && row && (
        <SlateScreen
          board={board}
          row={row}
          setup={setup}
          variation={wantedVariation(row)}
          onClose={() => setSlate(false)}
        />
      )}
    </div>
  );
}
