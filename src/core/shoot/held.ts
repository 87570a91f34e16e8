/** The settings that each mode of a camera keeps where it is manual. @see W3C Image Capture, section 4 */
export const settingsOfMode = {
  exposureMode: ['exposureTime', 'iso'],
  focusMode: ['focusDistance'],
  whiteBalanceMode: ['colorTemperature'],
} as const;

export type CameraMode = keyof typeof settingsOfMode;
type Setting = (typeof settingsOfMode)[CameraMode][number];

/** What a camera is held at: exposure in 100 µs, colour in K, focus in m, ISO as it is. */
export type HeldSettings = Partial<Record<Setting, number>>;

export const allSettings: readonly Setting[] = Object.values(settingsOfMode).flat();
