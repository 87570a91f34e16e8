import { expose } from 'comlink';
import { rankPairs } from '@/core/footage/pairs';
import { plainErrors } from './plain-errors';

const api = plainErrors({ rankPairs });
export type PairsApi = typeof api;
expose(api);
