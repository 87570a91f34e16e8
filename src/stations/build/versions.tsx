'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import type { Moment } from '@/core/model/records';
import { filmOf } from '@/core/recipes/films';
import { applyStyle, dropKept, keepVersion, saveStyle, stylesOf, takeVersion } from '@/store/commands/keep';
import { pictureOf } from '@/store/material';
import { versionsOf } from '@/store/versions';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { Part } from '../station';
import type { OtherVersion } from './compare';

/** The kept versions of a moment, each with its picture. */
export function useVersions(moment: Moment): OtherVersion[] {
  const snapshot = useData((data) => data.snapshot);
  return useMemo(
    () =>
      versionsOf(snapshot, moment).flatMap(({ version: { id, name }, as }) => {
        const tree = pictureOf(snapshot, as)?.tree;
        return tree ? [{ id, name, tree }] : [];
      }),
    [snapshot, moment],
  );
}

/** What is kept of a moment beside how it is built now: its versions, and styles for others. */
export function Versions({ moment, versions }: { moment: Moment; versions: readonly OtherVersion[] }) {
  const { store, attempt } = useServices();
  const project = useData((data) => data.snapshot.project);
  const own = useData((data) => data.snapshot.styles);
  const styles = useLiveQuery(() => stylesOf(store, moment.recipe), [store, moment.recipe, own]) ?? [];
  const kind = filmOf(moment.recipe).title.toLowerCase();
  return (
    <Part title="Versions and styles">
      <div className="flex flex-col gap-2" data-testid="versions">
        {versions.map(({ id, name }) => (
          <p key={id} className="flex flex-wrap items-center gap-1.5">
            <span className="font-serif text-[15px]">Version {name}</span>
            <button
              type="button"
              className="knob"
              aria-label={`Build it so: as version ${name}`}
              onClick={() => attempt(() => takeVersion(store, project.id, id))}
            >
              Build it so
            </button>
            <button
              type="button"
              className="knob"
              aria-label={`Remove version ${name}`}
              onClick={() => attempt(() => dropKept(store, project.id, id, 'Remove a version'))}
            >
              Remove
            </button>
          </p>
        ))}
        <p className="text-[12px] text-ink2">
          {versions.length > 0
            ? 'Lay a version over the picture below the stage to compare. Building it so replaces what is there; undo brings that back.'
            : 'Keep it as it is, change it, and lay the two over each other.'}
        </p>
        <p className="flex flex-wrap gap-1.5">
          <button
            type="button"
            className="knob"
            onClick={() => attempt(() => keepVersion(store, project.id, moment.id))}
          >
            Keep this version
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => attempt(() => saveStyle(store, project.id, moment.id))}
          >
            Save as a style
          </button>
        </p>
        {styles.length > 0 && (
          <p className="font-serif text-[15px] leading-[1.7]">
            Build this {kind} in the style{' '}
            <LiveChoice
              label="Style"
              value=""
              options={styles.map((style) => ({
                value: style.id,
                text: style.name,
                ...(style.project === project.id ? {} : { why: 'of another film' }),
              }))}
              onChange={(id) => {
                const style = styles.find((one) => one.id === id);
                if (style) void attempt(() => applyStyle(store, project.id, moment.id, style));
              }}
            />
            ; takes and marks on them stay.
          </p>
        )}
        {styles.some((style) => style.project === project.id) && (
          <p className="flex flex-wrap gap-1.5">
            {styles
              .filter((style) => style.project === project.id)
              .map(({ id, name }) => (
                <button
                  key={id}
                  type="button"
                  className="knob"
                  onClick={() => attempt(() => dropKept(store, project.id, id, 'Remove a style'))}
                >
                  Remove the style {name}
                </button>
              ))}
          </p>
        )}
      </div>
    </Part>
  );
}
