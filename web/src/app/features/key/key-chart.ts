import { BarChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as charts from 'echarts/core';
import type { EChartsCoreOption } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { CHART_TYPE, chartMotion, themeColour } from '../../ui/chart-style';

charts.use([BarChart, GridComponent, SVGRenderer]);

export { charts };

interface Bar {
  readonly name: string;
  readonly value: number;
  readonly current: boolean;
  readonly best: boolean;
}

/** A bar for each key: the one that the song is in is filled, the easiest one is marked. `theme` is read for its colours. */
export function keyChart(bars: readonly Bar[], measure: string, _theme: string): EChartsCoreOption {
  const [ink, soft, line, rest, left] = ['--ink', '--soft', '--hair', '--line', '--left'].map(themeColour);
  return {
    ...chartMotion(),
    grid: { left: 34, right: 8, top: 26, bottom: 30 },
    aria: { enabled: false },
    textStyle: CHART_TYPE,
    xAxis: {
      type: 'category',
      data: bars.map((b) => b.name),
      axisLine: { lineStyle: { color: soft } },
      axisTick: { show: false },
      axisLabel: { color: ink, fontSize: 16, fontWeight: 600 },
    },
    yAxis: { type: 'value', minInterval: 1, axisLabel: { color: soft, fontSize: 13 }, splitLine: { lineStyle: { color: line } } },
    series: [
      {
        name: measure,
        type: 'bar',
        barCategoryGap: '34%',
        label: { show: true, position: 'top', color: ink, fontSize: 14 },
        data: bars.map((b) => ({
          value: b.value,
          itemStyle: {
            color: b.current ? ink : b.best ? left : rest,
            borderRadius: [5, 5, 0, 0],
          },
        })),
      },
    ],
  };
}
