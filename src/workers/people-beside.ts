import { transfer } from 'comlink';
import type { Beside, Faces } from '@/media/people';
import type { Client } from './client';
import { openPeople } from './people-client';
import type { PeopleApi } from './people.worker';

let people: Client<PeopleApi> | null = null;
const opened = () => (people ??= openPeople()).api;

/** An image's memory is handed over instead of copied. */
const handed = <Image extends { data: { buffer: ArrayBufferLike } }>(image: Image): Image =>
  transfer(image, [image.data.buffer as ArrayBuffer]);

/** Finds people, and cuts them out, in a worker of its own, so that who asks can go on meanwhile. It ends with the worker that opened it. */
export const peopleBeside: Beside & Faces = {
  find: (picture) => opened().peopleIn(handed(picture)),
  face: (square) => opened().faceIn(handed(square)),
  cut: (luma, matte, differs) => opened().cutLikely(handed(luma), handed(matte), differs),
};
