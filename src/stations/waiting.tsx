/** What stands there until something else does. */
export const Waiting = ({ text }: { text: string }) => (
  <p className="grid h-dvh max-h-full place-items-center font-serif text-[19px]" role="status">
    {text}
  </p>
);
