'use client';
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import type { ChartProps } from './chart';
import { useSize } from './use-size';
import { useThemeNow } from './theme';

echarts.use([LineChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer]);

/** A dye as it is in the theme at hand: what draws itself knows no variables. */
const dyeNow = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

function optionOf({ curves, across, down, limit, span, marks = [] }: ChartProps) {
  const seen = span ?? (limit && [0, limit.value * 1.2]);
  const [ink, line] = [dyeNow('--ink2'), dyeNow('--line')];
  const text = { color: ink, fontSize: 10 };
  return {
    animation: false,
    grid: { left: 40, right: 12, top: marks.length > 0 ? 20 : 14, bottom: 20 },
    tooltip: {
      trigger: 'axis',
      backgroundColor: dyeNow('--raised'),
      borderColor: line,
      textStyle: { color: dyeNow('--ink'), fontSize: 12 },
      axisPointer: { lineStyle: { color: ink } },
      formatter: (points: { value: [number, number]; seriesName: string }[]) =>
        [across(points[0].value[0]), ...points.map((one) => `${one.seriesName} ${down(one.value[1])}`)].join(
          '<br>',
        ),
    },
    xAxis: {
      type: 'value',
      min: 'dataMin',
      max: 'dataMax',
      axisLabel: {
        ...text,
        formatter: across,
        hideOverlap: true,
        alignMinLabel: 'left',
        alignMaxLabel: 'right',
      },
      axisLine: { lineStyle: { color: line } },
      splitLine: { show: false },
    },
    yAxis: {
      type: 'value',
      scale: !seen,
      ...(seen && {
        min: ({ min }: { min: number }) => Math.min(min, seen[0]),
        max: ({ max }: { max: number }) => Math.max(max, seen[1]),
      }),
      // Where the ends were set, they are no round numbers, and their words lie on those of the round ones.
      axisLabel: {
        ...text,
        formatter: down,
        showMaxLabel: !seen,
        showMinLabel: !seen || seen[0] === 0,
      },
      splitLine: { lineStyle: { color: line, type: 'dotted' } },
      splitNumber: 3,
    },
    series: curves.map(({ name, points, dye, steps }, index) => ({
      type: 'line',
      name,
      data: points,
      step: steps ? 'end' : false,
      showSymbol: points.length === 1,
      lineStyle: { color: dyeNow(dye), width: 1.8 },
      itemStyle: { color: dyeNow(dye) },
      markLine:
        index > 0
          ? undefined
          : {
              silent: true,
              symbol: 'none',
              label: { ...text, formatter: '{b}', rotate: 0, position: limit ? 'insideEndTop' : 'end' },
              data: [
                ...(limit
                  ? [{ name: limit.text, yAxis: limit.value, lineStyle: { color: dyeNow('--madder') } }]
                  : []),
                ...marks.map(({ at, text: name }) => ({ name, xAxis: at, lineStyle: { color: ink } })),
              ],
            },
    })),
  };
}

/** What {@link ChartProps} asks for, once the package that draws it is there. */
export default function ChartDrawn(props: ChartProps) {
  const { label, height = 150, onPick } = props;
  const [ref, { width }] = useSize<HTMLDivElement>();
  const host = useRef<HTMLDivElement>(null);
  const chart = useRef<echarts.EChartsType>(null);
  const theme = useThemeNow();
  const pick = useRef(onPick);
  useEffect(() => {
    pick.current = onPick;
  }, [onPick]);
  useEffect(() => {
    if (!host.current || width === 0) return;
    const drawn = echarts.init(host.current, null, { renderer: 'svg', width, height });
    drawn.getZr().on('click', ({ offsetX, offsetY }) => {
      const [x] = drawn.convertFromPixel('grid', [offsetX, offsetY]) as number[];
      if (Number.isFinite(x)) pick.current?.(x);
    });
    chart.current = drawn;
    return () => drawn.dispose();
  }, [width, height]);
  useEffect(() => {
    chart.current?.setOption(optionOf(props), { notMerge: true });
  }, [props, width, theme]);
  return (
    <div ref={ref} className="w-full" style={{ height }}>
      <div
        ref={host}
        role="img"
        aria-label={label}
        data-chart=""
        className={onPick ? 'cursor-pointer' : ''}
      />
    </div>
  );
}
