/** The weave of a clone: twin stripes. Each kind of moment has its own, so that it is known without colour. */
export function CloneWeave({ id }: { id: string }) {
  return (
    <pattern id={id} width="12" height="12" patternUnits="userSpaceOnUse">
      <rect width="12" height="12" fill="var(--woad)" opacity="0.22" />
      <rect y="1" width="12" height="3.4" fill="var(--woad)" />
      <rect y="6.5" width="12" height="3.4" fill="var(--woad)" />
    </pattern>
  );
}
