import { LineChart } from 'echarts/charts';
import { GridComponent, LegendComponent, TooltipComponent } from 'echarts/components';
import { init, use as register, type ECharts, type EChartsCoreOption } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { useAppSelector } from '../app/store.js';
import type { Chart } from './loadCharts.js';

register([LineChart, GridComponent, LegendComponent, TooltipComponent, SVGRenderer]);

interface Props {
  readonly chart: Chart;
}

/** Lines over time. The figures are in its description, too, for who cannot see them. */
export function TimeChart({ chart }: Props): React.JSX.Element {
  const place = useRef<HTMLDivElement>(null);
  const drawn = useRef<ECharts | null>(null);
  const look = useAppSelector((state) => state.look);
  useEffect(() => {
    const element = place.current;
    if (element === null) return undefined;
    const made = init(element, null, { renderer: 'svg' });
    drawn.current = made;
    const observer = new ResizeObserver(() => made.resize());
    observer.observe(element);
    return () => {
      observer.disconnect();
      made.dispose();
      drawn.current = null;
    };
  }, []);
  useEffect(() => {
    if (place.current !== null) drawn.current?.setOption(optionsOf(chart, place.current), { notMerge: true });
  }, [chart, look]);
  return (
    <figure className="time-chart">
      <figcaption>
        {chart.title} {chart.unit !== '' && <span className="quiet">{chart.unit}</span>}
      </figcaption>
      <div ref={place} role="img" aria-label={describe(chart)} />
    </figure>
  );
}

/** The latest of each line in words. */
function describe({ title, unit, lines }: Chart): string {
  const latest = lines.map(({ name, values }) => {
    const value = values.findLast(([, one]) => one !== null)?.[1] ?? 0;
    return `${name} ${value}`;
  });
  return `${title}${unit === '' ? '' : `, ${unit}`}: ${latest.join(', ')}`;
}

const THIN = 1.5;

/** How the charts are drawn, in the colours of the theme. */
function optionsOf({ lines, stacked }: Chart, element: HTMLElement): EChartsCoreOption {
  const style = getComputedStyle(element);
  const color = (name: string): string => style.getPropertyValue(name).trim();
  const text = { color: color('--quiet'), fontFamily: style.fontFamily, fontSize: 12 };
  const rule = { lineStyle: { color: color('--rule') } };
  return {
    animation: false,
    grid: { left: 52, right: 16, top: 28, bottom: 24 },
    legend: {
      show: lines.length > 1,
      top: 0,
      right: 8,
      icon: 'rect',
      itemWidth: 10,
      itemHeight: 10,
      textStyle: text,
    },
    tooltip: {
      trigger: 'axis',
      backgroundColor: color('--sheet'),
      borderColor: color('--strong-rule'),
      textStyle: { ...text, color: color('--ink') },
    },
    xAxis: {
      type: 'time',
      axisLabel: { ...text, hideOverlap: true },
      axisLine: rule,
      splitLine: { show: false },
    },
    yAxis: { type: 'value', min: 0, axisLabel: text, splitLine: rule },
    series: lines.map((line) => ({
      type: 'line',
      name: line.name,
      data: line.values,
      // What stands alone between gaps would not be seen as a line.
      showSymbol: !stacked,
      symbol: 'circle',
      symbolSize: 2,
      step: stacked ? 'end' : false,
      ...(stacked ? { stack: 'all', areaStyle: { color: color(line.color), opacity: 0.35 } } : {}),
      lineStyle: { width: THIN, color: color(line.color) },
      itemStyle: { color: color(line.color) },
    })),
  };
}
