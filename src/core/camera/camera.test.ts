import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { allowed } from '../finding/allowed';
import { apertureFor, angleOfView, depthOfField, hyperfocal, matchedDistance, widthInFrame } from './lens';
import { circleOfConfusion, usedSensor } from './sensors';
import {
  exposureOf,
  exposureValue,
  flickerShare,
  isoFor,
  lightWanted,
  markedAperture,
  shutterAngle,
  steadyShutter,
  stopsBetween,
} from './exposure';
import { blurLength, calmPan, captureRateFor, playbackSpeed, slowestSpeed } from './speed';
import { edgeLeft, pictureReserve, roomToMove, scaleForShift, uprightShare } from './reserve';
import { gigabytes, supplies } from './storage';
import { coloursIn, rankScreens, readColour } from './key-colour';
import { backdropGaps, depthOf, frameOf, lensCone, roomAt, tapeTo, type View } from './view';
import { clearSkyLight, lightHolds, calmestLight, sunAt, sunDay } from './sun';

const film = { num: 24000, den: 1001 };

describe('lens (thin-lens formulas of any photographic handbook)', () => {
  it('gives the handbook hyperfocal distances', () => {
    expect(hyperfocal({ focal: 35, aperture: 8, circle: 0.029 })).toBeCloseTo(5.32, 2);
    // 2500 / 0.24 + 50 = 10 466.67 mm
    expect(hyperfocal({ focal: 50, aperture: 8, circle: 0.03 })).toBeCloseTo(10.47, 2);
  });

  it('is sharp from half the hyperfocal distance to the horizon when focused there', () => {
    const lens = { focal: 35, aperture: 8, circle: 0.029 };
    const focus = hyperfocal(lens);
    const { near, far } = depthOfField({ ...lens, focus });
    expect(near).toBeCloseTo(focus / 2, 2);
    expect(far).toBeGreaterThan(1000);
    expect(depthOfField({ ...lens, focus: focus * 1.01 }).far).toBe(Infinity);
  });

  it('finds the opening that just holds two distances, whatever they are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 10, max: 100, noNaN: true }),
        fc.double({ min: 0.8, max: 5, noNaN: true }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (focal, near, more) => {
          const found = apertureFor({ focal, circle: 0.029 }, near, near + more);
          const sharp = depthOfField({ focal, circle: 0.029, ...found });
          expect(sharp.near).toBeCloseTo(near, 6);
          expect(sharp.far).toBeCloseTo(near + more, 5);
        },
      ),
    );
  });

  it('frames 4.5 m at 3 m with 24 mm on a 36 mm sensor, and matches a second place to it', () => {
    expect(widthInFrame(36, 24, 3)).toBeCloseTo(4.5, 10);
    expect(angleOfView(36, 24)).toBeCloseTo(73.74, 2);
    const distance = matchedDistance(
      { sensorWidth: 36, focal: 24, distance: 3 },
      { sensorWidth: 23.5, focal: 35 },
    );
    expect(widthInFrame(23.5, 35, distance)).toBeCloseTo(4.5, 10);
  });

  it('refuses lenses that cannot be', () => {
    for (const wrong of [
      { focal: 0 },
      { focal: -24 },
      { aperture: 0 },
      { circle: -1 },
      { focus: 0.01 },
      { focal: NaN },
    ])
      expect(() => depthOfField({ focal: 24, aperture: 8, circle: 0.029, focus: 3, ...wrong })).toThrow(
        expect.objectContaining({ code: 'lens' }),
      );
  });

  it('uses the whole width for a wide picture, the whole height for an upright one', () => {
    expect(usedSensor({ width: 36, height: 24 }, { width: 1920, height: 1080 })).toEqual({
      width: 36,
      height: 20.25,
    });
    expect(usedSensor({ width: 36, height: 24 }, { width: 1080, height: 1920 }).width).toBeCloseTo(13.5, 10);
    expect(circleOfConfusion({ width: 36, height: 24 })).toBeCloseTo(0.029, 3);
  });
});

describe('exposure', () => {
  it('counts stops (APEX): f/2.8 to f/8 is 3.03, nominal 3', () => {
    expect(stopsBetween(2.8, 8)).toBeCloseTo(3.03, 2);
    expect(exposureValue(8, 1 / 125)).toBeCloseTo(12.97, 2); // ISO 2720: log2(N² / t)
    // Three stops more ISO want three stops less light.
    expect(lightWanted(8, 1 / 125, 800)).toBeCloseTo(exposureValue(8, 1 / 125) - 3, 10);
    expect(isoFor(800, 3)).toBe(6400);
    expect(markedAperture(6.8)).toBe(7.1);
    expect(markedAperture(7.15)).toBe(7.1);
    expect(markedAperture(60)).toBeNull();
  });

  it('gives 180° at 24000/1001 as 1/47.95 s (handbook), and back', () => {
    expect(1 / exposureOf(180, film)).toBeCloseTo(47.95, 2);
    expect(shutterAngle(1 / 50, { num: 25, den: 1 })).toBeCloseTo(180, 10);
  });

  it('is steady under 50 Hz at 1/50 and 1/100, under 60 Hz at 1/60 and 1/120 (handbook)', () => {
    for (const [mains, steady, pulsing] of [
      [50, [50, 100, 25], [60, 48, 120, 240]],
      [60, [60, 120, 30], [50, 100, 240]],
    ] as const) {
      for (const one of steady) expect(flickerShare(1 / one, mains)).toBeLessThan(1e-9);
      for (const one of pulsing) expect(flickerShare(1 / one, mains)).toBeGreaterThan(allowed.flicker / 2);
    }
    expect(steadyShutter(1 / 47.95, 50)).toBe(50);
    expect(steadyShutter(1 / 47.95, 60)).toBe(60);
    expect(steadyShutter(1 / 96, 50)).toBe(100);
  });
});

describe('speed (arithmetic)', () => {
  const sixty = { num: 60000, den: 1001 };
  it('shows 60000/1001 at 24000/1001 at exactly 40 %; 120 at 24 at 20 %', () => {
    expect(slowestSpeed(sixty, film)).toBeCloseTo(0.4, 12);
    expect(slowestSpeed({ num: 120, den: 1 }, { num: 24, den: 1 })).toBe(0.2);
  });

  it('plays the song as much faster as the picture is slowed, and as it is where that is not', () => {
    // What is slowed to half was sung at twice the speed (arithmetic).
    expect([0.4, 0.5, 1, 2].map(playbackSpeed)).toEqual([2.5, 2, 1, 1]);
  });

  it('chooses the capture rate for a speed', () => {
    expect(captureRateFor(film, 0.4)).toEqual(sixty);
    expect(captureRateFor({ num: 25, den: 1 }, 0.5)).toEqual({ num: 50, den: 1 });
    expect(captureRateFor({ num: 24, den: 1 }, 0.2)).toEqual({ num: 120, den: 1 });
    expect(captureRateFor(film, 2)).toEqual(film);
    expect(captureRateFor(film, 0.01)).toBeNull();
  });

  it('blurs a move over its exposure, and pans as calmly as the tables say', () => {
    expect(blurLength(2400, 1 / 48)).toBeCloseTo(50, 10);
    expect(calmPan({ num: 24, den: 1 })).toBe(7); // American Cinematographer Manual, from memory
  });
});

describe('picture reserve (geometry)', () => {
  it('leaves 2.38 % on each side at 105 %: 48 px at 1920', () => {
    expect(edgeLeft(1.05)).toBeCloseTo(0.0238, 4);
    expect(roomToMove(1.05, 1920)).toBeCloseTo(48, 10);
    expect(scaleForShift(48, 1920)).toBeCloseTo(1.0526, 4);
  });

  it('keeps 31.64 % of 16:9 in an upright cut: 607.5 of 1920, 1215 of 3840', () => {
    expect(uprightShare({ width: 1920, height: 1080 })).toBeCloseTo(0.3164, 4);
    expect(uprightShare({ width: 1920, height: 1080 }) * 1920).toBeCloseTo(607.5, 10);
    expect(uprightShare({ width: 3840, height: 2160 }) * 3840).toBeCloseTo(1215, 10);
  });

  it('adds up what eats picture', () => {
    const draws = [
      { name: 'zoom', scale: 1.2 },
      { name: 'handheld', scale: 1.05 },
    ];
    const delivery = { width: 1920, height: 1080 };
    const reserve = pictureReserve(draws, { width: 3840, height: 2160 }, delivery);
    expect(reserve.needed).toBeCloseTo(1.26, 10);
    expect(reserve.there).toBe(2);
    expect(reserve.sharpness).toBeCloseTo(1.587, 3);
    expect(pictureReserve([], delivery, delivery).sharpness).toBe(1);
  });

  it('counts storage: 100 Mb/s for an hour are 45 GB', () => {
    expect(gigabytes(60, 100)).toBe(45);
    expect(supplies(60, 100, { card: 90, battery: 120 })).toEqual({ needed: 45, card: 0.5, battery: 0.5 });
  });
});

describe('screen colour', () => {
  it('keeps away from clothes and set', () => {
    const green = readColour('#28aa46');
    expect(rankScreens([green])[0].name).not.toBe('green');
    expect(rankScreens([readColour('#c01828'), readColour('#d8a080')])[0].name).toMatch(/green|blue/);
    expect(rankScreens([])[0].distance).toBe(Infinity);
    expect(coloursIn('#28aa46, #1E50BE; #c81e28')).toEqual(['#28aa46', '#1E50BE', '#c81e28']);
    expect(coloursIn('')).toEqual([]);
    expect(() => readColour('teal')).toThrow(expect.objectContaining({ code: 'colour' }));
  });
});

describe('room and frame', () => {
  const view: View = { sensor: { width: 36, height: 20.25 }, focal: 24, height: 1.2, tilt: 0 };
  it('shows a point level with the lens in the middle, and half the width at the edge', () => {
    expect(frameOf(view, { x: 0, y: 3, z: 1.2 })).toEqual({ x: 0.5, y: 0.5 });
    expect(frameOf(view, { x: 2.25, y: 3, z: 1.2 })?.x).toBeCloseTo(1, 12);
    expect(lensCone(view, 1, 3)[2]).toEqual({ x: 2.25, y: 3 });
  });

  it('finds the place on the floor again from the frame, at any height and tilt', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1.5, max: 1.5, noNaN: true }),
        fc.double({ min: 0.9, max: 8, noNaN: true }),
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        fc.double({ min: -20, max: 40, noNaN: true }),
        (x, y, height, tilt) => {
          const tilted = { ...view, height, tilt };
          fc.pre(depthOf(tilted, { x, y, z: 0 }) > 0.2);
          const shown = frameOf(tilted, { x, y, z: 0 });
          const back = shown && roomAt(tilted, shown);
          expect(back?.x).toBeCloseTo(x, 6);
          expect(back?.y).toBeCloseTo(y, 6);
        },
      ),
    );
  });

  it('knows what lies behind the camera or above the horizon', () => {
    expect(frameOf(view, { x: 0, y: -1, z: 0 })).toBeNull();
    expect(roomAt(view, { x: 0.5, y: 0.3 })).toBeNull();
    expect(tapeTo({ x: 0.6, y: 0.8 })).toBeCloseTo(1, 12);
  });

  it('says what a backdrop leaves open', () => {
    const gaps = backdropGaps(view, { x: 0, y: 3, width: 4.5, height: 2.4 });
    expect(gaps.left).toBeCloseTo(0, 10);
    expect(gaps.right).toBeCloseTo(0, 10);
    // The lens sees 3 × 20.25 / 24 = 2.53 m there, half of it up: 1.2 + 1.27 m is above 2.4 m.
    expect(gaps.top).toBeGreaterThan(0);
    expect(backdropGaps(view, { x: 0, y: 3, width: 9, height: 4 }).left).toBeLessThan(0);
    expect(backdropGaps(view, { x: 0, y: -3, width: 9, height: 4 }).left).toBe(1);
  });
});

describe('sun', () => {
  const kyiv = { latitude: 50.45, longitude: 30.52 };
  const allowed = { stops: 0.33, degrees: 10 };
  it("gives the times that the package publishes for Kyiv on 24 August 2026 (suncalc's README, UTC+3)", () => {
    const day = sunDay(kyiv, Date.UTC(2026, 7, 24, 9));
    const clock = (time: number | null) => new Date((time ?? 0) + 3 * 3600e3).toISOString().slice(11, 16);
    expect([day.sunrise, day.noon, day.sunset].map(clock)).toEqual(['05:59', '13:00', '19:59']);
  });

  it('moves 15° of hour angle an hour (Meeus): at the equator at equinox that is 15° of altitude', () => {
    const morning = Date.UTC(2026, 2, 20, 8);
    const rise = (hours: number) => sunAt({ latitude: 0, longitude: 0 }, morning + hours * 3600e3).altitude;
    expect(rise(1) - rise(0)).toBeCloseTo(15, 0);
  });

  it('holds longest when the sun is high, and not at all when it is down', () => {
    const holds = (hour: number) => {
      const start = Date.UTC(2026, 7, 24, hour);
      return (lightHolds(kyiv, start, { stops: 0.33, degrees: 90 }) - start) / 60e3;
    };
    expect(holds(8)).toBeGreaterThan(holds(16));
    expect(holds(22)).toBe(0);
    const { starts, best } = calmestLight(kyiv, Date.UTC(2026, 7, 24, 3), Date.UTC(2026, 7, 24, 17), allowed);
    expect(starts).toHaveLength(56);
    expect(best?.minutes).toBe(Math.max(...starts.map((one) => one.minutes)));
    expect(clearSkyLight(60)).toBeGreaterThan(100000);
    expect(clearSkyLight(-1)).toBe(0);
  });

  it('answers at the pole, and refuses places that are not on the globe', () => {
    const summer = sunDay({ latitude: 90, longitude: 0 }, Date.UTC(2026, 5, 21, 12));
    expect(summer.sunrise).toBeNull();
    expect(lightHolds({ latitude: 90, longitude: 0 }, Date.UTC(2026, 5, 21, 12), allowed)).toBeGreaterThan(0);
    expect(() => sunDay({ latitude: 91, longitude: 0 }, 0)).toThrow(
      expect.objectContaining({ code: 'place' }),
    );
  });
});
