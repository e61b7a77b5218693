import type { Day, Pass } from '@joined-hands/core/log';
import { BarChart, HeatmapChart, ScatterChart } from 'echarts/charts';
import { GridComponent, VisualMapComponent } from 'echarts/components';
import * as charts from 'echarts/core';
import type { EChartsCoreOption } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { CHART_TYPE, chartMotion, themeColour } from '../../ui/chart-style';

charts.use([BarChart, HeatmapChart, ScatterChart, GridComponent, VisualMapComponent, SVGRenderer]);

export { charts };

const HANDS: readonly { readonly id: Pass['hands']; readonly text: string }[] = [
  { id: 'both', text: $localize`both` },
  { id: 'left', text: $localize`left` },
  { id: 'right', text: $localize`right` },
];

function base(names: readonly string[], line = true): EChartsCoreOption {
  return {
    ...chartMotion(),
    aria: { enabled: false },
    textStyle: CHART_TYPE,
    grid: { left: 40, right: 10, top: 22, bottom: 26 },
    xAxis: {
      type: 'category',
      data: names,
      axisLine: { show: line, lineStyle: { color: themeColour('--soft') } },
      axisTick: { show: false },
      axisLabel: { color: themeColour('--ink'), fontSize: 13, hideOverlap: true },
    },
  };
}

const valueAxis = () => ({
  type: 'value',
  minInterval: 1,
  axisLabel: { color: themeColour('--soft'), fontSize: 12 },
  splitNumber: 3,
  splitLine: { lineStyle: { color: themeColour('--hair') } },
});

const dayText = (day: Day): string =>
  new Date(`${day}T12:00:00`).toLocaleDateString(undefined, { day: 'numeric', month: 'short' });

/** A bar for each day, its number above it where there is one. `colour` names a colour of the theme, which `_theme` stands for. */
export function dayChart(
  days: readonly { readonly day: Day; readonly value: number }[],
  colour: string,
  _theme: string,
): EChartsCoreOption {
  return {
    ...base(days.map((d) => dayText(d.day))),
    yAxis: valueAxis(),
    series: [
      {
        type: 'bar',
        barCategoryGap: '30%',
        label: {
          show: true,
          position: 'top',
          color: themeColour('--ink'),
          fontSize: 13,
          formatter: ({ value }: { value: number }) => (value === 0 ? '' : value < 0.5 ? '<1' : `${Math.round(value)}`),
        },
        itemStyle: { color: themeColour(colour), borderRadius: [4, 4, 0, 0] },
        data: days.map((d) => d.value),
      },
    ],
  };
}

/** The fastest clean tempo of each part as a bar, its goal as a stroke above it. */
export function tempoChart(
  rows: readonly { readonly parts: string; readonly tempo: number; readonly goal: number }[],
  _theme: string,
): EChartsCoreOption {
  return {
    ...base(rows.map((r) => r.parts)),
    yAxis: valueAxis(),
    series: [
      {
        type: 'bar',
        barMaxWidth: 46,
        label: { show: true, position: 'insideTop', color: themeColour('--on-hand'), fontSize: 13 },
        data: rows.map(({ tempo, goal }) => ({
          value: tempo,
          itemStyle: { color: themeColour(tempo >= goal ? '--ok' : '--left'), borderRadius: [4, 4, 0, 0] },
        })),
      },
      {
        type: 'scatter',
        symbol: 'rect',
        symbolSize: [50, 3],
        silent: true,
        itemStyle: { color: themeColour('--join-ink') },
        data: rows.map((r) => r.goal),
      },
    ],
  };
}

/** How each hand of each part goes now: the more right notes, the fuller the field; its number stands in it. */
export function accuracyChart(
  cells: readonly { readonly parts: string; readonly hands: Pass['hands']; readonly accuracy: number }[],
  _theme: string,
): EChartsCoreOption {
  const parts = [...new Set(cells.map((c) => c.parts))];
  return {
    ...base(parts, false),
    grid: { left: 50, right: 10, top: 8, bottom: 26 },
    yAxis: {
      type: 'category',
      data: HANDS.map((h) => h.text),
      axisLine: { show: false },
      axisTick: { show: false },
      axisLabel: { color: themeColour('--ink'), fontSize: 13 },
    },
    visualMap: {
      show: false,
      min: 70,
      max: 100,
      inRange: { color: [themeColour('--right-wash'), themeColour('--join-wash'), themeColour('--left-wash')] },
    },
    series: [
      {
        type: 'heatmap',
        label: { show: true, color: themeColour('--ink'), fontSize: 14 },
        itemStyle: { borderColor: themeColour('--sheet'), borderWidth: 3, borderRadius: 7 },
        emphasis: { disabled: true },
        data: cells.map((c) => [parts.indexOf(c.parts), HANDS.findIndex((h) => h.id === c.hands), c.accuracy]),
      },
    ],
  };
}
