import { isCoreError, type CoreError } from '@/core/error';

/** True where the browser had no room left to keep something. */
export const isFull = (error: unknown): boolean =>
  error instanceof Error && /quota/i.test(`${error.name} ${error.message}`);

/** Any failure as plain data that survives the way to the page. */
export function asCoreError(error: unknown): CoreError {
  if (isCoreError(error)) return { code: error.code, message: error.message, details: error.details };
  if (isFull(error)) {
    return {
      code: 'storage.full',
      message: 'There is no room left on this device. Free some space, then do it again; nothing was lost.',
    };
  }
  const reason = error instanceof Error ? error.message : String(error);
  return { code: 'unexpected', message: `This did not work: ${reason}. Try it once more; nothing was lost.` };
}

type Calls = Record<string, (...args: never[]) => unknown>;

/** Lets every function of a worker fail with plain data. */
export function plainErrors<Api extends Calls>(api: Api): Api {
  const wrap =
    (call: Api[string]) =>
    async (...args: never[]) => {
      try {
        return await call(...args);
      } catch (error) {
        throw asCoreError(error);
      }
    };
  return Object.fromEntries(
    Object.entries(api).map(([name, call]) => [name, wrap(call as Api[string])]),
  ) as unknown as Api;
}
