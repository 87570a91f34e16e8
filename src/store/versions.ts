import { withKept } from '@/core/keep/keep';
import type { Moment, Version } from '@/core/model/records';
import { rememberedWith } from '@/core/remember';
import type { Snapshot } from './snapshot';

const built = rememberedWith<Version, Moment>();

/** The kept versions of a moment, each as the moment that it would be. */
export const versionsOf = (
  { versions }: Pick<Snapshot, 'versions'>,
  moment: Moment,
): { version: Version; as: Moment }[] =>
  versions
    .filter((version) => version.moment === moment.id)
    .map((version) => ({ version, as: built(version, [moment], () => withKept(moment, version.kept)) }));
