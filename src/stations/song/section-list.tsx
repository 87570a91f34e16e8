'use client';
import { useMemo } from 'react';
import { barAndBeat, barStart, beatOfTime, positionOf, type BeatGrid } from '@/core/time/grid';
import { addSection, layFoundSections, removeSection, setSection } from '@/store/commands/song';
import { sectionEnergies } from '@/store/plan';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { LiveText } from '@/ui/live-text';
import { dyes } from '@/ui/ribbon/sections';
import { Part } from '../station';

/** The parts of the song: their names, where they begin, and how much energy each carries. */
export function SectionList({ grid }: { grid: BeatGrid }) {
  const { store, player, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { sections, project } = snapshot;
  const measure = songMeasure(snapshot);
  const energy = useMemo(() => sectionEnergies(snapshot), [snapshot]);
  return (
    <Part title="Sections and their energy">
      {sections.length === 0 && <p className="mb-1 text-ink2">None yet. Put the needle where one begins.</p>}
      <ul className="mb-1.5 flex flex-col">
        {sections.map((section, index) => (
          <li key={section.id} className="flex items-center gap-2 border-b border-dotted border-line py-0.5">
            <span className="h-4 w-1.5" style={{ background: dyes[section.dye] }} />
            <span className="min-w-0 flex-1">
              <LiveText
                label={`Name of section ${index + 1}`}
                value={section.name}
                onChange={(name) => attempt(() => setSection(store, project.id, section.id, { name }))}
              />
            </span>
            <LiveNumber
              label={`${section.name} begins in bar`}
              value={barAndBeat(grid, section.at).bar}
              step={1}
              show={(value) => `bar ${value}`}
              onChange={(value) =>
                attempt(() =>
                  setSection(store, project.id, section.id, { at: positionOf(grid, Math.round(value)) }),
                )
              }
            />
            {energy[index] && (
              <span
                className="relative h-3 w-12 bg-sunk"
                title={`${energy[index].level.toFixed(1)} dB, ${energy[index].density.toFixed(1)} hits a second`}
              >
                <span className="sr-only">energy {Math.round(energy[index].share * 100)} %</span>
                <span
                  className="absolute inset-y-0 left-0"
                  style={{
                    width: `${Math.max(4, energy[index].share * 100)}%`,
                    background: dyes[section.dye],
                  }}
                />
              </span>
            )}
            <button
              type="button"
              className="text-ink2 hover:text-madder pointer-fine:min-h-6 pointer-fine:min-w-6"
              aria-label={`Remove ${section.name}`}
              onClick={() => attempt(() => removeSection(store, project.id, section.id))}
            >
              ×
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="knob"
          onClick={() =>
            attempt(() =>
              addSection(store, snapshot.project.id, barStart(grid, beatOfTime(grid, player.time()) + 0.01)),
            )
          }
        >
          Section at needle
        </button>
        {measure && measure.song.sections.length > 0 && (
          <button
            type="button"
            className="knob"
            onClick={() => attempt(() => layFoundSections(store, snapshot.project.id))}
          >
            As found
          </button>
        )}
      </div>
    </Part>
  );
}
