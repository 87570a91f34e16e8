/** Bytes that the browser still lets this page keep; null where it does not say. */
export async function roomLeft(): Promise<number | null> {
  const { quota, usage } = (await navigator.storage?.estimate?.().catch(() => null)) ?? {};
  return quota === undefined || usage === undefined ? null : Math.max(0, quota - usage);
}
