import { expose } from 'comlink';
import { orderJobs } from '@/core/plan/order/order';
import { plainErrors } from './plain-errors';

const api = plainErrors({ orderJobs });
export type PlanApi = typeof api;
expose(api);
