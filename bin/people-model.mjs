#!/usr/bin/env node
/**
 * Makes public/people/pose.task, the model that finds people, and public/people/face.tflite, the one that finds lips in
 * a face, of what the packages @mediapipe/pose, @mediapipe/face_mesh and flatbuffers hold (Apache-2.0):
 * `node bin/people-model.mjs`. The models in those packages say nothing of their input, and the program that runs them
 * wants to know: a .tflite file is a flatbuffer whose offsets all run forwards, so a new root is put in front of the old
 * bytes that names the old parts and one more buffer, TFLITE_METADATA. A .task file is a zip of models that are stored
 * as they are.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Uint8ArrayReader, Uint8ArrayWriter, ZipWriter } from '@zip.js/zip.js';

const home = fileURLToPath(new URL('..', import.meta.url));
const place = mkdtempSync(join(tmpdir(), 'people-'));
const packages = [
  '@mediapipe/pose@0.5.1675469404',
  '@mediapipe/face_mesh@0.4.1657299874',
  'flatbuffers@25.9.23',
];
execFileSync('npm', ['install', '--prefix', place, ...packages], { stdio: 'inherit' });
const { Builder } = createRequire(join(place, 'package.json'))('flatbuffers');

/**
 * What the program wants to know of a model: that it hears one picture, less `mean` and over `std`, and what it tells,
 * each by a name.
 */
function metadata(mean, std, told) {
  const builder = new Builder(1024);
  const vector = (offsets) => {
    builder.startVector(4, offsets.length, 4);
    for (const offset of offsets.toReversed()) builder.addOffset(offset);
    return builder.endVector();
  };
  const floats = (value) => {
    builder.startVector(4, 1, 4);
    builder.addFloat32(value);
    return builder.endVector();
  };
  const table = (fields, fill) => {
    builder.startObject(fields);
    fill();
    return builder.endObject();
  };
  const [means, deviations] = [floats(mean), floats(std)];
  const normalisation = table(2, () => {
    builder.addFieldOffset(0, means, 0);
    builder.addFieldOffset(1, deviations, 0);
  });
  const unit = table(2, () => {
    builder.addFieldInt8(0, 1, 0);
    builder.addFieldOffset(1, normalisation, 0);
  });
  const picture = table(2, () => builder.addFieldInt8(0, 1, 0));
  const content = table(3, () => {
    builder.addFieldInt8(0, 2, 0);
    builder.addFieldOffset(1, picture, 0);
  });
  const units = vector([unit]);
  const inputName = builder.createString('image');
  const input = table(7, () => {
    builder.addFieldOffset(0, inputName, 0);
    builder.addFieldOffset(3, content, 0);
    builder.addFieldOffset(4, units, 0);
  });
  const output = (name) => {
    const feature = table(2, () => {});
    const content = table(3, () => {
      builder.addFieldInt8(0, 1, 0);
      builder.addFieldOffset(1, feature, 0);
    });
    const written = builder.createString(name);
    return table(7, () => {
      builder.addFieldOffset(0, written, 0);
      builder.addFieldOffset(3, content, 0);
    });
  };
  const all = told.map(output);
  const [inputs, outputs] = [vector([input]), vector(all)];
  const graph = table(10, () => {
    builder.addFieldOffset(2, inputs, 0);
    builder.addFieldOffset(3, outputs, 0);
  });
  const graphs = vector([graph]);
  const [name, version] = [builder.createString('person'), builder.createString('1.0.0')];
  const root = table(8, () => {
    builder.addFieldOffset(0, name, 0);
    builder.addFieldOffset(3, graphs, 0);
    builder.addFieldOffset(7, version, 0);
  });
  builder.finish(root, 'M001');
  return builder.asUint8Array();
}

/** Where the parts of a model's root are: its version, and by their numbers what its fields point at. */
function rootOf(model) {
  const view = new DataView(model.buffer, model.byteOffset, model.byteLength);
  const root = view.getUint32(0, true);
  const fields = root - view.getInt32(root, true);
  const field = (index) => {
    const at = 4 + 2 * index;
    return at < view.getUint16(fields, true) ? view.getUint16(fields + at, true) : 0;
  };
  const target = (index) => {
    const at = field(index) && root + field(index);
    return at ? at + view.getUint32(at, true) : 0;
  };
  const buffers = target(4);
  return {
    version: field(0) ? view.getUint32(root + field(0), true) : 0,
    operators: target(1),
    graphs: target(2),
    description: target(3),
    buffers: Array.from({ length: view.getUint32(buffers, true) }, (_, index) => {
      const at = buffers + 4 + 4 * index;
      return at + view.getUint32(at, true);
    }),
  };
}

/** A model with metadata in front of it. */
function described(model, about) {
  const { version, operators, graphs, description, buffers } = rootOf(model);
  const name = 'TFLITE_METADATA';
  let used = 8;
  const room = (bytes, step = 4) => {
    const at = Math.ceil(used / step) * step;
    used = at + bytes;
    return at;
  };
  const [fields, root] = [room(4 + 2 * 8), room(4 + 4 * 8)];
  const [list, entries] = [room(4 + 4 * (buffers.length + 1)), room(8)];
  const [entryFields, entry, text] = [room(8), room(12), room(4 + name.length + 1)];
  const [bufferFields, buffer] = [room(6), room(8)];
  used = Math.ceil((used + 4) / 16) * 16 - 4;
  const data = room(4 + about.length);
  const total = Math.ceil(used / 16) * 16;
  const bytes = new Uint8Array(total + model.length);
  const view = new DataView(bytes.buffer);
  bytes.set(model, total);
  const letters = (words, at) =>
    bytes.set(
      [...words].map((letter) => letter.charCodeAt(0)),
      at,
    );
  const point = (at, to) => view.setUint32(at, to - at, true);
  view.setUint32(0, root, true);
  letters('TFL3', 4);
  view.setUint16(fields, 4 + 2 * 8, true);
  view.setUint16(fields + 2, 4 + 4 * 8, true);
  view.setInt32(root, root - fields, true);
  const has = (index, offset) => view.setUint16(fields + 4 + 2 * index, offset, true);
  view.setUint32(root + 4, version, true);
  has(0, 4);
  for (const [index, offset, to] of [
    [1, 8, total + operators],
    [2, 12, total + graphs],
    ...(description ? [[3, 16, total + description]] : []),
    [4, 20, list],
    [6, 28, entries],
  ]) {
    point(root + offset, to);
    has(index, offset);
  }
  view.setUint32(list, buffers.length + 1, true);
  buffers.forEach((at, index) => point(list + 4 + 4 * index, total + at));
  point(list + 4 + 4 * buffers.length, buffer);
  view.setUint32(entries, 1, true);
  point(entries + 4, entry);
  [8, 12, 4, 8].forEach((value, index) => view.setUint16(entryFields + 2 * index, value, true));
  view.setInt32(entry, entry - entryFields, true);
  point(entry + 4, text);
  view.setUint32(entry + 8, buffers.length, true);
  view.setUint32(text, name.length, true);
  letters(name, text + 4);
  [6, 8, 4].forEach((value, index) => view.setUint16(bufferFields + 2 * index, value, true));
  view.setInt32(buffer, buffer - bufferFields, true);
  point(buffer + 4, data);
  view.setUint32(data, about.length, true);
  bytes.set(about, data + 4);
  return bytes;
}

const read = (name) => new Uint8Array(readFileSync(join(place, 'node_modules/@mediapipe', name)));

/** A model out of the one file that a package has packed its models into. */
function unpacked(solution, name) {
  const loader = new TextDecoder().decode(read(`${solution}_solution_packed_assets_loader.js`));
  const { start, end } = JSON.parse(/"files":\s*(\[[^\]]*\])/.exec(loader)[1]).find(({ filename }) =>
    filename.endsWith(name),
  );
  return read(`${solution}_solution_packed_assets.data`).slice(start, end);
}

const zip = new ZipWriter(new Uint8ArrayWriter(), {
  level: 0,
  extendedTimestamp: false,
  lastModDate: new Date(2000, 0, 1),
  dataDescriptor: false,
});
for (const [name, bytes] of [
  [
    'pose_detector.tflite',
    described(unpacked('pose/pose', 'pose_detection.tflite'), metadata(127.5, 127.5, ['mask'])),
  ],
  [
    'pose_landmarks_detector.tflite',
    described(read('pose/pose_landmark_full.tflite'), metadata(0, 255, ['mask'])),
  ],
])
  await zip.add(name, new Uint8ArrayReader(bytes));
const task = await zip.close();
// The order in which the model tells them; the program wants a name for each.
const told = ['face', 'lips', 'left eye', 'right eye', 'left iris', 'right iris', 'is a face'];
const face = described(
  unpacked('face_mesh/face_mesh', 'face_landmark_with_attention.tflite'),
  metadata(0, 255, told),
);
writeFileSync(join(home, 'public/people/pose.task'), task);
writeFileSync(join(home, 'public/people/face.tflite'), face);
rmSync(place, { recursive: true });
for (const [what, { length }] of [
  ['people', task],
  ['lips', face],
])
  console.log(`The model that finds ${what} takes ${(length / 1e6).toFixed(1)} MB.`);
