import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openDeviceCamera } from './camera';
import { FakeRecorder } from './__tests__/fake-recorder';
import { StreamRecorder } from './recorder';

describe('recording a stream', () => {
  const kept: string[] = [];
  const keep = vi.fn(async (piece: Blob, index: number) => void kept.push(`${index} ${await piece.text()}`));
  const record = () =>
    new Promise<{ recorder: StreamRecorder; ended: Promise<unknown> }>((resolve) => {
      let end: (failure: unknown) => void = () => undefined;
      const ended = new Promise((done) => (end = done));
      const recorder = new StreamRecorder({} as MediaStream, 8e6, keep, end);
      recorder.start();
      resolve({ recorder, ended });
    });

  beforeEach(() => {
    kept.length = 0;
    keep.mockClear();
    vi.stubGlobal('MediaRecorder', FakeRecorder);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('keeps every piece in its order, the last one too, before it says that it has ended', async () => {
    const { recorder, ended } = await record();
    for (const words of ['a', 'b']) FakeRecorder.last.give(words);
    FakeRecorder.last.give('');
    recorder.stop();
    expect(await ended).toBeNull();
    expect(kept).toEqual(['0 a', '1 b', '2 last']);
    recorder.stop();
    expect(recorder.type).toBe('video/webm');
  });

  it('ends at the first piece that finds no room, and keeps nothing after the hole', async () => {
    const { ended } = await record();
    const full = Object.assign(new Error('No space'), { name: 'QuotaExceededError' });
    keep.mockImplementationOnce(async (piece) => void kept.push(`0 ${await piece.text()}`));
    keep.mockRejectedValueOnce(full);
    for (const words of ['a', 'b', 'c']) FakeRecorder.last.give(words);
    expect(await ended).toBe(full);
    expect(kept).toEqual(['0 a']);
    expect(FakeRecorder.last.state).toBe('inactive');
  });

  it('tells why the browser ended it', async () => {
    const { ended } = await record();
    const error = new Error('The encoder died');
    FakeRecorder.last.give('a');
    FakeRecorder.last.fail(error);
    expect(await ended).toBe(error);
    expect(kept[0]).toBe('0 a');
  });

  it('says where a browser cannot record at all', () => {
    FakeRecorder.types = [];
    expect(() => new StreamRecorder({} as MediaStream, 1, keep, () => undefined)).toThrowError(/Quick check/);
    FakeRecorder.types = ['video/webm'];
    vi.stubGlobal('MediaRecorder', undefined);
    expect(() => new StreamRecorder({} as MediaStream, 1, keep, () => undefined)).toThrowError(/Quick check/);
  });
});

describe('opening the device’s camera', () => {
  const wish = { width: 1920, height: 1080, rate: 25 };
  const track = (modes: Record<string, string[]>) => {
    const set: Record<string, string> = {};
    return {
      label: '',
      stop: vi.fn(),
      getCapabilities: () => modes,
      getSettings: () => set,
      applyConstraints: async ({ advanced: [one] }: { advanced: Record<string, string>[] }) =>
        void Object.assign(set, one),
    };
  };
  const devices = (getUserMedia: unknown) => vi.stubGlobal('navigator', { mediaDevices: { getUserMedia } });
  afterEach(() => vi.unstubAllGlobals());

  it('goes without a microphone, and says which settings it can hold', async () => {
    const video = track({ exposureMode: ['continuous', 'manual'], focusMode: ['continuous'] });
    const stream = { getVideoTracks: () => [video], getTracks: () => [video] };
    const ask = vi.fn().mockRejectedValueOnce(new Error('no microphone')).mockResolvedValueOnce(stream);
    devices(ask);
    const camera = await openDeviceCamera(wish);
    expect(ask).toHaveBeenCalledTimes(2);
    expect(camera.name).toBe('This device’s camera');
    expect(await camera.hold()).toEqual({ exposure: true, focus: false, white: false });
    camera.close();
    expect(video.stop).toHaveBeenCalled();
  });

  it('is held at what it was held at before, and tells where it cannot be', async () => {
    const modes = { exposureMode: ['manual'], whiteBalanceMode: ['manual'] };
    const video = track(modes);
    const stream = { getVideoTracks: () => [video], getTracks: () => [video] };
    devices(vi.fn().mockResolvedValue(stream));
    const camera = await openDeviceCamera(wish);
    const plate = { exposureTime: 200, iso: 400, colorTemperature: 5000 };
    expect(await camera.hold(plate)).toEqual({ exposure: true, focus: false, white: true });
    expect(camera.settings()).toEqual(plate);
    // A driver that gives another exposure than it was asked for.
    const { getSettings } = video;
    video.getSettings = () => ({ ...getSettings(), iso: 800 }) as never;
    expect(await camera.hold(plate)).toEqual({ exposure: false, focus: false, white: true });
  });

  it.each([
    ['NotAllowedError', 'camera.refused'],
    ['NotFoundError', 'camera.none'],
    ['NotReadableError', 'camera.busy'],
    ['OddError', 'camera.failed'],
  ])('says what to do about %s', async (name, code) => {
    devices(vi.fn().mockRejectedValue(Object.assign(new Error(name), { name })));
    await expect(openDeviceCamera(wish)).rejects.toMatchObject({ code });
  });

  it('says that the address is not safe where there are no devices at all', async () => {
    vi.stubGlobal('navigator', {});
    await expect(openDeviceCamera(wish)).rejects.toMatchObject({ code: 'camera.insecure' });
  });
});
