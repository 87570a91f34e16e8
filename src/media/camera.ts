import { isCoreError, refuse } from '@/core/error';
import { allSettings, settingsOfMode, type CameraMode, type HeldSettings } from '@/core/shoot/held';

/** Which settings a camera keeps from changing by itself. */
export type Held = { exposure: boolean; focus: boolean; white: boolean };

/** A picture of a camera. Whoever asked for it closes the bitmap or hands it on. */
export type TakenPicture = { bitmap: ImageBitmap; time: number };

/** A camera that is on, real or simulated: everything after this sees only its stream. */
export type OpenCamera = {
  stream: MediaStream;
  name: string;
  /** the picture it shows now, with when that was taken: seconds by the page's clock; for cameras that know */
  picture?: () => Promise<TakenPicture>;
  /**
   * Tries to hold the settings as they are, or as they were held before; false for each that the browser or camera
   * cannot hold so.
   */
  hold: (as?: HeldSettings) => Promise<Held>;
  /** what it is held at now, as far as the camera tells */
  settings: () => HeldSettings;
  close: () => void;
};

export const holdsAll = ({ exposure, focus, white }: Held): boolean => exposure && focus && white;

/** What a browser says when a camera cannot be opened, in words that say what to do. */
function why(error: unknown): never {
  const name = error instanceof Error ? error.name : '';
  if (name === 'NotAllowedError' || name === 'SecurityError')
    refuse(
      'camera.refused',
      'The camera was not allowed. Allow it for this page in the browser’s settings, then open it again. Until then log takes by hand, or use Quick check on clips.',
    );
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    refuse(
      'camera.none',
      'No camera was found on this device. Connect one, or use the practice camera, or Quick check on clips.',
    );
  if (name === 'NotReadableError' || name === 'AbortError')
    refuse('camera.busy', 'Another application has the camera. Close it there, then open it again.');
  refuse(
    'camera.failed',
    'The camera could not be opened. Unplug it or restart the browser, then try again.',
  );
}

type Capabilities = MediaTrackCapabilities & Record<string, unknown>;

/** True where a camera tells the same within a hundredth: drivers round. */
const near = (told: unknown, wanted: number) =>
  typeof told === 'number' && Math.abs(told - wanted) <= Math.abs(wanted) / 100;

/** Asks a track to keep one of its modes, at some values where they are known. */
async function keep(track: MediaStreamTrack, mode: CameraMode, as: HeldSettings): Promise<boolean> {
  const can = (track.getCapabilities?.() ?? {}) as Capabilities;
  const modes = can[mode];
  if (!Array.isArray(modes) || !modes.includes('manual')) return false;
  const wanted = settingsOfMode[mode].flatMap((name) => {
    const value = as[name];
    return value === undefined ? [] : [[name, value] as const];
  });
  try {
    const set = { [mode]: 'manual', ...Object.fromEntries(wanted) } as MediaTrackConstraintSet;
    await track.applyConstraints({ advanced: [set] });
    const told = track.getSettings() as Record<string, unknown>;
    return told[mode] === 'manual' && wanted.every(([name, value]) => near(told[name], value));
  } catch {
    return false;
  }
}

/**
 * Opens this device's camera, the one that looks away from the person where there are two.
 * @throws CoreError `camera.…` with what to do
 */
export async function openDeviceCamera(wish: {
  width: number;
  height: number;
  rate: number;
}): Promise<OpenCamera> {
  if (!navigator.mediaDevices?.getUserMedia) {
    refuse(
      'camera.insecure',
      'Browsers open a camera only on a safe address. Start the bench with bin/demo --lan and open the address it prints, or open it on the computer itself.',
    );
  }
  const video: MediaTrackConstraints = {
    facingMode: { ideal: 'environment' },
    width: { ideal: wish.width },
    height: { ideal: wish.height },
    frameRate: { ideal: wish.rate },
  };
  const plainSound = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
  try {
    const stream = await navigator.mediaDevices
      .getUserMedia({ video, audio: plainSound })
      // A microphone that is refused or missing is no reason to go without the picture.
      .catch(() => navigator.mediaDevices.getUserMedia({ video }));
    const [track] = stream.getVideoTracks();
    return {
      stream,
      name: track.label || 'This device’s camera',
      hold: async (as = {}) => ({
        exposure: await keep(track, 'exposureMode', as),
        focus: await keep(track, 'focusMode', as),
        white: await keep(track, 'whiteBalanceMode', as),
      }),
      settings: () => {
        const told = track.getSettings() as Record<string, unknown>;
        const known = allSettings.filter((name) => typeof told[name] === 'number');
        return Object.fromEntries(known.map((name) => [name, told[name]]));
      },
      close: () => stream.getTracks().forEach((one) => one.stop()),
    };
  } catch (error) {
    if (isCoreError(error)) throw error;
    return why(error);
  }
}
