/** The part of a sensor that is used for video, in millimetres. */
export type Sensor = { width: number; height: number };

/** Common sizes to choose from. Nominal values of the trade; a camera's own data sheet comes first. */
export const sensors: readonly (Sensor & { id: string; name: string })[] = [
  { id: 'full', name: 'Full frame', width: 36, height: 24 },
  { id: 'super35', name: 'Super 35', width: 24.9, height: 14 },
  { id: 'apsc', name: 'APS-C, 1.5 ×', width: 23.5, height: 15.6 },
  { id: 'apsc16', name: 'APS-C, 1.6 ×', width: 22.3, height: 14.9 },
  { id: 'mft', name: 'Four Thirds', width: 17.3, height: 13 },
  { id: 'inch', name: '1-inch type', width: 13.2, height: 8.8 },
  { id: 'phone-main', name: 'Phone, large main camera', width: 9.8, height: 7.3 },
  { id: 'phone', name: 'Phone, usual main camera', width: 7.4, height: 5.6 },
  { id: 'phone-small', name: 'Phone, second camera', width: 5.6, height: 4.2 },
];

/** The part of a sensor that a picture of another shape uses: all of its width, or all of its height. */
export function usedSensor(sensor: Sensor, picture: { width: number; height: number }): Sensor {
  const shape = picture.width / picture.height;
  return shape >= sensor.width / sensor.height
    ? { width: sensor.width, height: sensor.width / shape }
    : { width: sensor.height * shape, height: sensor.height };
}

/**
 * The largest spot that still counts as sharp, in millimetres: a 1500th of the whole sensor's diagonal.
 * Common practice; 0.029 mm on 36 × 24.
 */
export const circleOfConfusion = ({ width, height }: Sensor): number => Math.hypot(width, height) / 1500;
