// A chart on its canvas with a line over it: drawn anew for other values or another theme, while the line alone moves.
import type { Chart } from 'chart.js';
import { useEffect, useRef, type RefObject } from 'react';
import { usePreferences } from '../state/preferences';

/** What a chart is drawn with: the colours and fonts of the theme, and where the line stands now. */
export interface Drawing<Line> {
  canvas: HTMLCanvasElement;
  ink: string;
  font: string;
  colour: (name: string) => string;
  lineNow: () => Line;
}

/** `draw`: the same function as long as it draws the same. */
export function useLinedChart<Line>(
  draw: (drawing: Drawing<Line>) => Chart,
  line: Line,
): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart | null>(null);
  const now = useRef(line);
  const theme = usePreferences((s) => s.theme);
  useEffect(() => {
    if (!canvas.current) return;
    const style = getComputedStyle(canvas.current);
    const colour = (name: string) => style.getPropertyValue(name).trim() || 'gray';
    const lineNow = () => now.current;
    chart.current = draw({
      canvas: canvas.current,
      ink: colour('--color-base-content'),
      font: style.font,
      colour,
      lineNow,
    });
    return () => {
      chart.current?.destroy();
      chart.current = null;
    };
  }, [draw, theme]);
  useEffect(() => {
    now.current = line;
    chart.current?.draw();
  }, [line]);
  return canvas;
}
