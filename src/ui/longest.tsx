/** Says that no more letters are taken. */
export const Longest = ({ most }: { most: number }) => (
  <span role="status" className="text-[12.5px] text-saffron" data-testid="longest">
    At most {most} letters fit here.
  </span>
);
