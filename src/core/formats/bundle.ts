import * as z from 'zod/mini';
import { refuse } from '../error';
import { commandSchema } from '../model/command';
import { liftOps, modelVersion } from '../model/lift';
import { isWrongType } from '../model/typed';

/** The file's own name for what it is. Its version is the model's. See docs/bundle.md. */
export const bundleFormat = 'fickle-ribbon bundle';
export const bundleIndex = 'bundle.json';

/** More than any project needs; a file that says more is not one of ours. */
const bundleLimits = { entries: 5000, indexBytes: 128e6, mediaBytes: 200e9 };

const probeSchema = z.object({
  duration: z.number(),
  video: z.nullable(
    z.object({
      codec: z.string(),
      size: z.object({ width: z.int().check(z.positive()), height: z.int().check(z.positive()) }),
      turned: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
      rate: z.number(),
    }),
  ),
  audio: z.nullable(z.object({ codec: z.string(), sampleRate: z.number(), channels: z.number() })),
});

/** A clip or song as the bundle lists it; `entry` is its place in the zip. */
const bundleMediaSchema = z.object({
  id: z.string().check(z.minLength(1), z.maxLength(200)),
  name: z.string().check(z.maxLength(400)),
  type: z.string().check(z.maxLength(200)),
  size: z.int().check(z.nonnegative()),
  fingerprint: z.string().check(z.maxLength(200)),
  probe: z.nullable(probeSchema),
  created: z.number(),
  recorded: z.optional(z.nullable(z.number())),
  entry: z.string(),
});
export type BundleMedia = z.infer<typeof bundleMediaSchema>;

const bundleSchema = z.object({
  format: z.literal(bundleFormat),
  version: z.int().check(z.minimum(1)),
  made: z.number(),
  project: z.object({ id: z.string().check(z.minLength(1)), name: z.string() }),
  /** null for the whole project */
  setup: z.nullable(z.object({ id: z.string(), name: z.string() })),
  commands: z.array(commandSchema),
  media: z.array(bundleMediaSchema),
});
export type Bundle = z.infer<typeof bundleSchema>;

/** A name for the n-th medium of a bundle; the person's own file name never becomes a path. */
export const mediaEntry = (index: number): string => `media/${String(index).padStart(4, '0')}`;

/** What the zip says of one of its entries, before anything is unpacked. */
type ZipEntry = { name: string; size: number; packed: number; folder: boolean };

/**
 * Checks the list of a zip before anything of it is read.
 * @throws CoreError `bundle.hostile` or `bundle.foreign` with what to do
 */
export function checkEntries(entries: readonly ZipEntry[], fileSize: number): void {
  if (entries.length > bundleLimits.entries)
    refuse('bundle.hostile', 'This zip lists more files than a project has. It was left alone.');
  const names = new Set<string>();
  for (const { name, size, packed, folder } of entries) {
    if (folder) continue;
    if (name !== bundleIndex && !/^media\/\d{4}$/.test(name))
      refuse(
        name.includes('..') || name.startsWith('/') || name.includes('\\')
          ? 'bundle.hostile'
          : 'bundle.foreign',
        `This zip holds “${name.slice(0, 60)}”, which no project of this bench holds. Choose a file that was saved under Carry.`,
      );
    if (names.has(name)) refuse('bundle.hostile', 'This zip lists a file twice. It was left alone.');
    names.add(name);
    const most = name === bundleIndex ? bundleLimits.indexBytes : bundleLimits.mediaBytes;
    // Media are stored as they are: one that claims to grow while unpacking is a trap.
    if (size > most || packed > fileSize || (name !== bundleIndex && size !== packed))
      refuse('bundle.hostile', 'This zip unpacks to more than it can hold. It was left alone.');
  }
  if (!names.has(bundleIndex))
    refuse('bundle.foreign', 'This zip is no project. Choose a file that was saved under Carry.');
}

/**
 * Reads the index of a bundle, lifted to the version of today.
 * @throws CoreError `bundle.newer`, `bundle.broken` with what to do
 */
export function readBundle(text: string): Bundle {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return refuse(
      'bundle.broken',
      'This file is damaged. Save it again on the other device and carry it over.',
    );
  }
  const { version } = z.object({ version: z.number() }).safeParse(raw).data ?? { version: 0 };
  if (version > modelVersion)
    refuse(
      'bundle.newer',
      `This file was saved by a newer Fickle Ribbon (format ${version}, this one reads ${modelVersion}). Open this application once with a network, so that it renews itself; then bring the file in again.`,
    );
  const checked = bundleSchema.safeParse(raw);
  if (checked.success) {
    const { commands, ...rest } = checked.data;
    const lifted = commands.map((command) => ({ ...command, ops: liftOps(command.ops, version) }));
    const wrong = lifted.flatMap(({ ops }) => ops).find(isWrongType);
    if (wrong)
      refuse(
        'bundle.broken',
        `This file is damaged: “${wrong.field}” of a ${wrong.kind} holds what cannot stand there. Nothing of it was taken in. Save it again on the other device and carry it over.`,
      );
    return { ...rest, version: modelVersion, commands: lifted };
  }
  const [issue] = checked.error.issues;
  return refuse(
    'bundle.broken',
    `This file is damaged at ${issue.path.slice(0, 4).join(' ') || 'its beginning'}. Save it again on the other device and carry it over.`,
  );
}
