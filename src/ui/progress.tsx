/** How far something is, as stitches that fill a line. @param share 0..1 */
export const Progress = ({ label, share }: { label: string; share: number }) => (
  <span
    role="progressbar"
    aria-label={label}
    aria-valuenow={Math.round(share * 100)}
    className="h-1.5 min-w-16 flex-1 bg-sunk"
  >
    <span className="stitched-flat block h-full" style={{ width: `${share * 100}%` }} />
  </span>
);
