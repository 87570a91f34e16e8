'use client';
import { bedEnergy, passEnergy } from '@/core/plan/advice/coverage';
import { allowed } from '@/core/finding/allowed';
import { kindsOf, pictureEnergy } from '@/core/plan/advice/style';
import type { Pass } from '@/core/model/plan-records';
import { addPass, removePart, setPart } from '@/store/commands/plan';
import { setProject } from '@/store/commands/projects';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Swatch } from '@/ui/ribbon/weave';
import { Part } from '../../station';
import { AddSetup } from '../add-setup';

const about = (code: string) => /^(style|coverage|plan\.(empty|no-setup)|caution)/.test(code);

/** Advice about the whole film: how many kinds, whose energy, what performance lies between the moments. */
export function NeedsSide() {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { project, setups } = snapshot;
  return (
    <>
      <Part title="What the bench found">
        <Findings findings={plan.findings.filter(({ code }) => about(code))} />
        {setups.length === 0 && (
          <div className="mt-2">
            <AddSetup />
          </div>
        )}
      </Part>
      <Part title="Style">
        <p className="mb-1">
          At most{' '}
          <LiveNumber
            label="Kinds of effect at most"
            value={project.kinds ?? allowed.kinds}
            step={1}
            min={1}
            max={20}
            show={(value) => `${value} kinds`}
            onChange={(kinds) => attempt(() => setProject(store, project.id, { kinds: Math.round(kinds) }))}
          />{' '}
          of effect. The film is{' '}
          <LiveChoice
            label="Shape of the film"
            value={project.upright ? 'upright' : 'wide'}
            options={[
              { value: 'wide', text: 'wide only' },
              { value: 'upright', text: 'wide and upright' },
            ]}
            onChange={(value) =>
              attempt(() => setProject(store, project.id, { upright: value === 'upright' }))
            }
          />
          .
        </p>
        <ul>
          {kindsOf(plan.moments).map(({ kind, title, times }) => (
            <li key={kind} className="flex items-center gap-2 border-b border-dotted border-line py-1">
              <Swatch id={`style-${kind}`} kind={kind} width={26} height={14} />
              <span className="flex-1">{title}</span>
              <span className="num">{times} ×</span>
            </li>
          ))}
        </ul>
      </Part>
      <EnergyBars />
      <Part title="Performance between the moments">
        <ul className="flex flex-col gap-1.5">
          {snapshot.passes.map((pass, index) => (
            <PassLine key={pass.id} pass={pass} index={index} />
          ))}
        </ul>
        <div className="mt-2 flex flex-wrap gap-1.5">
          {snapshot.passes.length === 0 ? (
            <button
              type="button"
              className="knob"
              onClick={() => attempt(() => addPass(store, snapshot.project.id))}
            >
              Lay out the usual passes
            </button>
          ) : (
            <button
              type="button"
              className="knob"
              onClick={() => attempt(() => addPass(store, snapshot.project.id))}
            >
              One more pass
            </button>
          )}
        </div>
      </Part>
    </>
  );
}

/** The song's energy against the pictures', section by section. */
function EnergyBars() {
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const { sections, moments } = plan;
  if (sections.length === 0) return null;
  const bed = bedEnergy(snapshot.passes);
  return (
    <Part title="Energy: song and pictures">
      <ul>
        {sections.map((section) => {
          const picture = pictureEnergy(moments, section, bed);
          return (
            <li key={section.from} className="flex items-center gap-2 py-0.5">
              <span className="w-[84px] truncate">{section.name}</span>
              <svg
                width="120"
                height="16"
                role="img"
                aria-label={`song ${Math.round(section.song * 100)} %, pictures ${Math.round(picture * 100)} %`}
              >
                <rect width="120" height="7" fill="var(--sunk)" />
                <rect width={120 * section.song} height="7" fill="var(--woad)" />
                <rect y="9" width="120" height="7" fill="var(--sunk)" />
                <rect y="9" width={120 * picture} height="7" fill="var(--saffron)" />
              </svg>
              <span className="num">
                {Math.round(section.song * 100)} · {Math.round(picture * 100)}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="text-[12px] text-ink2">
        Upper bar: the song, in per cent. Lower bar: moments and passes over it.
      </p>
    </Part>
  );
}

const options = (values: readonly string[]) => values.map((value) => ({ value, text: value }));

function PassLine({ pass, index }: { pass: Pass; index: number }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const save = (set: Partial<Pass>) => attempt(() => setPart(store, pass.project, pass.id, 'The pass', set));
  const name = `pass ${index + 1}`;
  return (
    <li className="border-b border-dotted border-line pb-1.5">
      <span className="flex flex-wrap items-baseline gap-x-1.5">
        <LiveNumber
          label={`Times, ${name}`}
          value={pass.times}
          step={1}
          min={1}
          max={50}
          show={(value) => `${value} ×`}
          onChange={(times) => save({ times: Math.round(times) })}
        />
        <LiveChoice
          label={`What, ${name}`}
          value={pass.what}
          options={options(['pass', 'whip', 'second camera'])}
          onChange={(what) => save({ what: what as Pass['what'] })}
        />
        <LiveChoice
          label={`Size, ${name}`}
          value={pass.size}
          options={options(['wide', 'medium', 'close'])}
          onChange={(size) => save({ size: size as Pass['size'] })}
        />
        <LiveChoice
          label={`Angle, ${name}`}
          value={pass.angle}
          options={options(['front', 'side', 'behind', 'above', 'below'])}
          onChange={(angle) => save({ angle: angle as Pass['angle'] })}
        />
        <LiveChoice
          label={`Steadiness, ${name}`}
          value={pass.steadiness}
          options={options(['steady', 'moving', 'handheld'])}
          onChange={(steadiness) => save({ steadiness: steadiness as Pass['steadiness'] })}
        />
        {snapshot.setups.length > 1 && (
          <LiveChoice
            label={`Setup, ${name}`}
            value={pass.setup}
            options={snapshot.setups.map(({ id, name: text }) => ({ value: id, text }))}
            onChange={(setup) => save({ setup })}
          />
        )}
        <LiveChoice
          label={`Part of the song, ${name}`}
          value={pass.from === null ? 'whole' : String(pass.from)}
          options={[
            { value: 'whole', text: 'whole song' },
            ...snapshot.sections.map((section) => ({ value: String(section.at), text: section.name })),
          ]}
          onChange={(from) => {
            const at = snapshot.sections.findIndex((section) => String(section.at) === from);
            void save(
              at < 0
                ? { from: null, until: null }
                : { from: snapshot.sections[at].at, until: snapshot.sections[at + 1]?.at ?? null },
            );
          }}
        />
        <button
          type="button"
          className="ml-auto text-[12px] underline underline-offset-2 pointer-fine:min-h-6"
          aria-label={`Remove ${name}`}
          onClick={() => attempt(() => removePart(store, pass.project, pass.id, 'Remove the pass'))}
        >
          remove
        </button>
      </span>
      <span className="text-[12px] text-ink2">energy {Math.round(passEnergy(pass) * 100)} %</span>
    </li>
  );
}
