'use client';
import { lazy, memo, Suspense } from 'react';

/** Some curves over one axis, as people read them. */
export type ChartProps = {
  /** what it shows, in words, for those who do not see it */
  label: string;
  curves: readonly {
    name: string;
    points: readonly (readonly [x: number, y: number])[];
    /** a variable of the theme, such as `--woad` */
    dye: string;
    /** its value holds until the next one */
    steps?: boolean;
  }[];
  /** places on the axis and values, in words */
  across: (x: number) => string;
  down: (y: number) => string;
  /** a line that values are held against */
  limit?: { value: number; text: string };
  /** values that are in sight at least, so that next to nothing does not look like much */
  span?: readonly [number, number];
  marks?: readonly { at: number; text: string }[];
  /** CSS pixels */
  height?: number;
  /** where it was pressed */
  onPick?: (x: number) => void;
};

const Drawn = lazy(() => import('./chart-drawn'));

/** Curves to read; what draws them is fetched where one is shown. */
export const Chart = memo(function Chart(props: ChartProps) {
  return (
    <Suspense fallback={<div style={{ height: props.height ?? 150 }} />}>
      <Drawn {...props} />
    </Suspense>
  );
});
