'use client';
import { useRef } from 'react';
import { roomAt } from '@/core/camera/view';
import { refuse } from '@/core/error';
import { usualStature, type Mark, type Piece, type Setup, type Zone } from '@/core/model/plan-records';
import { viewOf } from '@/core/plan/setup/numbers';
import { otherUnits, readAside, sayAside } from '@/core/units';
import { addMark, addPiece, removePart, removeSetup, setPart } from '@/store/commands/plan';
import { newId } from '@/store/db';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { LiveLength, useUnits } from '@/ui/live-length';
import { LiveNumber } from '@/ui/live-number';
import { LiveText } from '@/ui/live-text';
import { Part } from '../../station';
import { markDyes, zoneNames } from '../dyes';
import { AddSetup } from '../add-setup';

/** What was found in the room, and everything in it with its measures. */
export function RoomSide({ setup }: { setup: Setup }) {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { findings } = plan;
  const of = <Thing extends { setup: string }>(things: readonly Thing[]) =>
    things.filter((one) => one.setup === setup.id);
  const save = (label: string, set: Record<string, unknown>) =>
    attempt(() => setPart(store, setup.project, setup.id, label, set));
  return (
    <>
      <Part title="What the bench found">
        <Findings findings={findings.filter(({ where }) => where.setup === setup.id)} />
      </Part>
      <Part title="Setup">
        <p className="mb-1">
          <LiveText
            label="Name of the setup"
            value={setup.name}
            onChange={(name) => save('Name', { name })}
          />
        </p>
        <p className="leading-7">
          Walls:{' '}
          {(['left', 'right', 'ahead', 'behind'] as const).map((side) => (
            <span key={side} className="mr-2 whitespace-nowrap">
              {side}{' '}
              <LiveLength
                label={`Wall ${side}`}
                value={setup.walls[side]}
                onChange={(value) => save('Walls', { [`walls.${side}`]: value })}
              />
            </span>
          ))}
        </p>
        <p className="leading-7">
          Same size of the performer as in{' '}
          <LiveChoice
            label="Matches the place"
            value={setup.matches ?? 'none'}
            options={[
              { value: 'none', text: 'no other' },
              ...snapshot.setups
                .filter(({ id }) => id !== setup.id)
                .map(({ id, name }) => ({ value: id, text: name })),
            ]}
            onChange={(id) => save('Matched place', { matches: id === 'none' ? null : id })}
          />
        </p>
        <StillChoice setup={setup} />
        <div className="mt-2 flex flex-wrap gap-1.5">
          <AddSetup />
          {snapshot.setups.length > 1 && (
            <button
              type="button"
              className="knob"
              onClick={() =>
                attempt(async () => {
                  await removeSetup(store, snapshot.project.id, setup.id);
                  go({ setup: null });
                })
              }
            >
              Remove this one
            </button>
          )}
        </div>
      </Part>
      <Marks setup={setup} marks={of(snapshot.marks)} />
      <Pieces setup={setup} pieces={of(snapshot.pieces)} />
      <Zones setup={setup} zones={of(snapshot.zones)} />
    </>
  );
}

/** The picture behind the drawing: a take, a file, or a sketch. */
function StillChoice({ setup }: { setup: Setup }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const picker = useRef<HTMLInputElement>(null);
  const still = setup.still ?? 'sketch';
  const save = (value: string | null) =>
    attempt(() => setPart(store, setup.project, setup.id, 'Picture behind', { still: value }));
  const bring = async (file: File) => {
    const picture = await createImageBitmap(file).catch(() =>
      refuse(
        'picture',
        `${file.name} is no picture that this browser can read. Choose a JPEG, PNG or WebP file.`,
      ),
    );
    const scale = Math.min(1, 1600 / Math.max(picture.width, picture.height));
    const canvas = new OffscreenCanvas(Math.round(picture.width * scale), Math.round(picture.height * scale));
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    picture.close();
    const id = newId();
    await store.originals.add({
      id,
      blob: await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.85 }),
    });
    await setPart(store, setup.project, setup.id, 'Picture behind', { still: `file:${id}` });
  };
  return (
    <p className="leading-7">
      Behind the drawing:{' '}
      <LiveChoice
        label="Picture behind the drawing"
        value={still}
        options={[
          { value: 'sketch', text: 'a sketch of the room' },
          ...snapshot.takes.map(({ id, name }) => ({ value: id, text: name })),
          ...(still.startsWith('file:') ? [{ value: still, text: 'my own picture' }] : []),
          { value: 'choose', text: 'a picture from a file …' },
        ]}
        onChange={(value) => {
          if (value === 'choose') picker.current?.click();
          else void save(value === 'sketch' ? null : value);
        }}
      />
      <input
        ref={picker}
        type="file"
        hidden
        data-testid="still"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void attempt(() => bring(file));
        }}
      />
    </p>
  );
}

function Remove({ name, id, project }: { name: string; id: string; project: string }) {
  const { store, attempt } = useServices();
  return (
    <button
      type="button"
      className="text-[12px] underline underline-offset-2 pointer-fine:min-h-6"
      aria-label={`Remove ${name}`}
      onClick={() => attempt(() => removePart(store, project, id, `Remove ${name}`))}
    >
      remove
    </button>
  );
}

function Marks({ setup, marks }: { setup: Setup; marks: readonly Mark[] }) {
  const { store, attempt } = useServices();
  const units = useUnits();
  const save = (mark: Mark, set: Partial<Mark>) =>
    attempt(() => setPart(store, setup.project, mark.id, `Mark ${mark.name}`, set));
  return (
    <Part title="Marks, from the lens foot">
      <ul className="flex flex-col gap-1">
        {marks.map((mark, index) => (
          <li
            key={mark.id}
            className="flex flex-wrap items-baseline gap-x-2 border-b border-dotted border-line pb-1"
          >
            <span
              className="h-2.5 w-2.5 self-center rounded-full"
              style={{ background: markDyes[index % markDyes.length] }}
            />
            <LiveText
              label={`Name of mark ${index + 1}`}
              value={mark.name}
              onChange={(name) => save(mark, { name })}
            />
            <span className="whitespace-nowrap">
              <LiveLength label={`${mark.name}, away`} value={mark.y} onChange={(y) => save(mark, { y })} />{' '}
              away,{' '}
              <LiveNumber
                label={`${mark.name}, to the side`}
                value={mark.x}
                step={units === 'metric' ? 0.01 : 0.0127}
                show={(x) => sayAside(x, units)}
                also={(x) => sayAside(x, otherUnits(units))}
                read={(text) => readAside(text, units)}
                onChange={(x) => save(mark, { x })}
              />
            </span>
            <span className="whitespace-nowrap">
              <LiveLength
                label={`${mark.name}, how tall`}
                value={mark.stature}
                onChange={(stature) => save(mark, { stature })}
              />{' '}
              tall
            </span>
            <Remove name={mark.name} id={mark.id} project={setup.project} />
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="knob mt-1.5"
        onClick={() =>
          attempt(async () => {
            const at = roomAt(viewOf(setup), { x: 0.5, y: 0.8 });
            const far = at && at.y < setup.walls.ahead ? at.y : Math.min(2.5, setup.walls.ahead);
            const name = `Mark ${marks.length + 1}`;
            await addMark(store, setup.project, {
              setup: setup.id,
              name,
              x: 0,
              y: far,
              stature: usualStature,
            });
          })
        }
      >
        Add a mark
      </button>
    </Part>
  );
}

function Pieces({ setup, pieces }: { setup: Setup; pieces: readonly Piece[] }) {
  const { store, attempt } = useServices();
  const save = (piece: Piece, set: Partial<Piece>) =>
    attempt(() => setPart(store, setup.project, piece.id, piece.name, set));
  const give = (what: Piece['what']) => {
    const at = {
      furniture: { name: 'Table', x: 0, y: 2, width: 1.6, depth: 0.6, height: 0.9 },
      door: { name: 'Door', x: 0, y: setup.walls.ahead, width: 0.9, depth: 0.05, height: 2 },
      backdrop: { name: 'Backdrop', x: 0, y: setup.walls.ahead - 0.3, width: 3, depth: 0.03, height: 2.4 },
    }[what];
    void attempt(() => addPiece(store, setup.project, { setup: setup.id, what, ...at }));
  };
  return (
    <Part title="What stands in the room">
      <ul className="flex flex-col gap-1">
        {pieces.map((piece, index) => (
          <li
            key={piece.id}
            className="flex flex-wrap items-baseline gap-x-2 border-b border-dotted border-line pb-1"
          >
            <LiveText
              label={`Name of piece ${index + 1}`}
              value={piece.name}
              onChange={(name) => save(piece, { name })}
            />
            <span>
              {(['width', 'depth', 'height'] as const).map((side, at) => (
                <span key={side}>
                  {at > 0 && ' × '}
                  <LiveLength
                    label={`${piece.name}, ${side}`}
                    value={piece[side]}
                    onChange={(value) => save(piece, { [side]: value })}
                  />
                </span>
              ))}
              ,{' '}
              <LiveLength
                label={`${piece.name}, away`}
                value={piece.y}
                onChange={(y) => save(piece, { y })}
              />{' '}
              away
            </span>
            <Remove name={piece.name} id={piece.id} project={setup.project} />
          </li>
        ))}
      </ul>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {(['furniture', 'door', 'backdrop'] as const).map((what) => (
          <button key={what} type="button" className="knob" onClick={() => give(what)}>
            Add {what === 'furniture' ? 'furniture' : `a ${what}`}
          </button>
        ))}
      </div>
    </Part>
  );
}

function Zones({ setup, zones }: { setup: Setup; zones: readonly Zone[] }) {
  const { store, attempt } = useServices();
  return (
    <Part title="Zones on the picture">
      <ul>
        {zones.map((zone, index) => (
          <li
            key={zone.id}
            className="flex flex-wrap items-baseline gap-x-2 border-b border-dotted border-line py-0.5"
          >
            <LiveText
              label={`Name of zone ${index + 1}`}
              value={zone.name}
              onChange={(name) =>
                attempt(() => setPart(store, setup.project, zone.id, `Zone ${zone.name}`, { name }))
              }
            />
            <span className="flex-1 text-ink2">{zoneNames[zone.what]}</span>
            <Remove name={zone.name} id={zone.id} project={setup.project} />
          </li>
        ))}
      </ul>
    </Part>
  );
}
