/** A refusal as plain data, so that it can cross from a worker to the page unchanged. */
export type CoreError = { code: string; message: string; details?: unknown };

/** Throws a {@link CoreError}; `message` is a sentence that tells a person what to do. */
export function refuse(code: string, message: string, details?: unknown): never {
  const error: CoreError = details === undefined ? { code, message } : { code, message, details };
  throw error;
}

/** True where `value` is a {@link CoreError}, whichever side of a worker it comes from. */
export function isCoreError(value: unknown): value is CoreError {
  return (
    typeof value === 'object' &&
    value !== null &&
    typeof (value as CoreError).code === 'string' &&
    typeof (value as CoreError).message === 'string'
  );
}
