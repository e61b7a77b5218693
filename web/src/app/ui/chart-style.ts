/** The colours of the theme in use, as the style sheet sets them on the page. */
export function themeColour(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}

/** The type that every chart is lettered in. */
export const CHART_TYPE = { fontFamily: 'Atkinson Hyperlegible Next Variable, Noto Music, sans-serif' } as const;

/** How long a chart takes to grow, in milliseconds; not at all where less motion is asked for. */
export const chartMotion = () => ({
  animation: !matchMedia('(prefers-reduced-motion: reduce)').matches,
  animationDuration: 250,
});
