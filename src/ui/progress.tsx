'use client';
import { Progress as Bar } from 'radix-ui';

/** How far something is, as stitches that fill a line. @param share 0..1 */
export const Progress = ({ label, share }: { label: string; share: number }) => (
  <Bar.Root aria-label={label} value={Math.round(share * 100)} className="h-1.5 min-w-16 flex-1 bg-sunk">
    <Bar.Indicator className="stitched-flat block h-full" style={{ width: `${share * 100}%` }} />
  </Bar.Root>
);
