import { describe, expect, it } from 'vitest';
import { comparePoses, nearestPose } from './compare-poses';
import { poseSteps, sayPose } from './pose-words';
import { body, high, ratio, stature, upright } from './__tests__/upright';
import { agreeOn, mirroredPose } from './two-looks';
import { feetOf, partAt, statureIn, type BodyPart, type Pose } from './pose';

const compared = (now: Pose, earlier = body()) => comparePoses(earlier, now, ratio, stature);
const told = (now: Pose) => sayPose(compared(now) ?? expect.fail('not compared'), 'metric');

describe('feet', () => {
  // A foot is 0.039 of the stature above the ground here; 0.9 m below the middle of 3.4 m.
  const ground = 0.5 + (0.9 - 0.039 * stature) / high;

  it('reach as low as those of the tallest, whoever else is lower, and nowhere where none is seen', () => {
    expect(feetOf([body()])).toBeCloseTo(ground, 6);
    expect(feetOf([body({ parts: { 'left foot': [0, -0.3] } })])).toBeCloseTo(ground, 6);
    expect(feetOf([body({ by: [0, -0.34] })])).toBeCloseTo(ground - 0.1, 6);
    const small = body({ by: [0.5, 0.9], size: 0.4 });
    expect(feetOf([small, body()])).toBeCloseTo(ground, 6);
    expect(feetOf([body({ hidden: ['left foot', 'right foot'] })])).toBeNaN();
    expect(feetOf([])).toBeNaN();
  });
});

describe('a body in a picture', () => {
  it('is as tall as its bones say, also where it bends and where one bone points at the lens', () => {
    expect(statureIn(body(), ratio)).toBeCloseTo(0.5, 6);
    expect(
      statureIn(body({ parts: { 'left hand': [0, -0.1], 'right knee': [0, -0.2] } }), ratio),
    ).toBeCloseTo(0.5, 1);
    expect(statureIn(body({ hidden: Object.keys(upright) as BodyPart[] }), ratio)).toBeNull();
  });

  it('has a part only where all of it is seen and lies in the picture', () => {
    expect(partAt(body(), 'left foot')?.y).toBeCloseTo(0.5 + (0.9 - 0.039 * stature) / high, 6);
    expect(partAt(body({ hidden: ['left foot'] }), 'left foot')).toBeNull();
    expect(partAt(body({ by: [0, 1] }), 'left foot')).toBeNull();
  });
});

describe('a pose against an earlier one', () => {
  it('is as before where nothing moved, and within what the model is unsure of', () => {
    expect(told(body())).toBe('You stand as before');
    expect(told(body({ by: [0.02, 0], parts: { head: [0.015, 0.01] } }))).toBe('You stand as before');
  });

  it('says a part that is elsewhere, the way that it has to go as the picture shows it', () => {
    expect(told(body({ parts: { 'left foot': [0.05, 0] } }))).toBe(
      'Left foot 5 cm further left, then you stand as before',
    );
    expect(told(body({ parts: { 'right hand': [-0.1, 0.2] } }))).toBe(
      'Right hand 20 cm higher, 10 cm further right, then you stand as before',
    );
  });

  it('says the whole body first, and its parts as they are once that stands right', () => {
    const match = compared(body({ by: [-0.3, 0], parts: { 'left hand': [0, -0.12] } }));
    expect(match && poseSteps(match, 'metric')).toEqual([
      'stand 30 cm further right',
      'left hand 12 cm lower',
    ]);
    expect(match && sayPose(match, 'metric')).toBe('Stand 30 cm further right');
  });

  it('tells a body that is too near or too far from one whose parts moved', () => {
    const near = compared(body({ size: 1.2 }));
    expect(near?.parts).toEqual([]);
    expect(near && poseSteps(near, 'metric').at(-1)).toBe('stand further back, you are 20 % too large');
    const far = compared(body({ size: 0.8 }));
    expect(far && poseSteps(far, 'metric').at(-1)).toBe('come nearer, you are 20 % too small');
  });

  it('names what is not seen in both, and says nothing of it', () => {
    const match = compared(body({ hidden: ['left foot'], parts: { 'left foot': [0.5, 0] } }));
    expect(match).toMatchObject({ parts: [], unseen: ['left foot'] });
    expect(match && sayPose(match, 'metric')).toBe('What is seen stands as before; not seen: left foot');
    const barely = Object.keys(upright).filter((part) => !/shoulder/.test(part)) as BodyPart[];
    expect(compared(body({ hidden: barely }))).toBeNull();
  });

  it('speaks in feet and inches where those are used', () => {
    const match = compared(body({ by: [0.254, 0] }));
    expect(match && sayPose(match, 'imperial')).toBe('Stand 10″ further left, then you stand as before');
  });

  it('is that of whoever is nearest to where somebody stood', () => {
    const [left, right] = [body({ by: [-1, 0] }), body({ by: [1, 0] })];
    expect(nearestPose(body({ by: [0.7, 0] }), [left, right])).toBe(right);
    expect(nearestPose(body(), [])).toBeNull();
  });
});

describe('two looks at one picture', () => {
  it('turn a pose to its mirror image and back', () => {
    const pose = body({ parts: { 'left hand': [0.3, -0.2] } });
    expect(partAt(mirroredPose(pose), 'right hand')?.x).toBeCloseTo(
      1 - (partAt(pose, 'left hand')?.x ?? 0),
      9,
    );
    mirroredPose(mirroredPose(pose)).forEach(({ x, y, seen }, joint) => {
      expect([x, y, seen]).toEqual([expect.closeTo(pose[joint].x, 9), pose[joint].y, pose[joint].seen]);
    });
  });

  it('believe what both see, midway, and nothing that each makes up elsewhere', () => {
    const second = body({ parts: { head: [0.02, 0], 'left hand': [0.1, 0] } });
    const [agreed] = agreeOn([body()], [second], ratio);
    expect(partAt(agreed, 'head')?.x).toBeCloseTo(0.5 + 0.01 / high / ratio, 9);
    expect(partAt(agreed, 'left hand')).toBeNull();
    expect(partAt(agreed, 'right hand')).not.toBeNull();
  });

  it('each hold against whoever stands nearest, and drop whom one of them alone sees', () => {
    const [left, right] = [body({ by: [-1, 0] }), body({ by: [1, 0] })];
    const both = agreeOn([left, right], [right, left], ratio);
    expect(both.map((pose) => partAt(pose, 'head')?.x)).toEqual(
      [left, right].map((pose) => expect.closeTo(partAt(pose, 'head')?.x ?? 0, 9)),
    );
    expect(agreeOn([left], [], ratio)).toEqual([]);
  });
});
