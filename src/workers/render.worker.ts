import { expose } from 'comlink';
import { renderShot } from '@/media/render';
import { plainErrors } from './plain-errors';

const api = plainErrors({ renderShot });
export type RenderApi = typeof api;
expose(api);
