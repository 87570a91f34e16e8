import { transfer } from 'comlink';
import type { FindPeople } from '@/media/people';
import type { Client } from './client';
import { openPeople } from './people-client';
import type { PeopleApi } from './people.worker';

let people: Client<PeopleApi> | null = null;

/** Finds people in a worker of its own, so that who asks can go on meanwhile. It ends with the worker that opened it. */
export const findBeside: FindPeople = (picture) => {
  people ??= openPeople();
  return people.api.peopleIn(transfer(picture, [picture.data.buffer as ArrayBuffer]));
};
