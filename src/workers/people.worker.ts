import { expose, transfer } from 'comlink';
import { cutOutLikely } from '@/core/footage/cutout';
import { fitWithin } from '@/core/geometry/size';
import { headsOf, type Head } from '@/core/people/head';
import type { Pose } from '@/core/people/pose';
import { agreeOn, mirroredPose } from '@/core/people/two-looks';
import { mirrorImage } from '@/core/picture/image';
import { bitmapPixels } from '@/media/bitmap-pixels';
import { findFace, findPeople, type FindPeople } from '@/media/people';
import { plainErrors } from './plain-errors';

/** pixels of the longer side that people are looked for in: those of the stills that earlier poses come from */
const side = 480;

/** Where everybody's body is in a picture, as two looks at it agree; the bitmap is used up. */
async function posesIn(bitmap: ImageBitmap): Promise<Pose[]> {
  const picture = bitmapPixels(bitmap, fitWithin(bitmap, side));
  const first = await findPeople(picture);
  const second = first && (await findPeople(mirrorImage(picture)));
  if (!second) return [];
  return agreeOn(first.poses, second.poses.map(mirroredPose), picture.width / picture.height);
}

/** The heads in a picture, also of those of whom little else is seen; the bitmap is used up. */
async function headsIn(bitmap: ImageBitmap): Promise<Head[]> {
  const picture = bitmapPixels(bitmap, fitWithin(bitmap, side));
  return headsOf((await findPeople(picture))?.poses ?? [], picture.width / picture.height);
}

const peopleIn: FindPeople = async (picture) => {
  const people = await findPeople(picture);
  return people && transfer(people, [people.matte.data.buffer as ArrayBuffer]);
};

const api = plainErrors({ posesIn, headsIn, peopleIn, faceIn: findFace, cutLikely: cutOutLikely });
export type PeopleApi = typeof api;
expose(api);
