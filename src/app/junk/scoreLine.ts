// The line, drawn over a chart at its place across it.
import type { Plugin } from 'chart.js';

/** Where the line stands, as a share of the width from 0 to 1, and what stands beside it; null where there is none. */
type LineAt = () => { share: number; says: string } | null;

/** Draws the line in a colour and a font. */
export function linePlugin(lineAt: LineAt, ink: string, font: string): Plugin {
  return {
    id: 'line',
    afterDatasetsDraw: ({ ctx, chartArea, scales }) => {
      const line = lineAt();
      if (line === null) return;
      const { left, right } = scales.x;
      const x = left + (right - left) * line.share;
      const onRight = x > (left + right) / 2;
      ctx.save();
      ctx.strokeStyle = ink;
      ctx.fillStyle = ink;
      ctx.lineWidth = 2;
      ctx.setLineDash([5, 3]);
      ctx.beginPath();
      ctx.moveTo(x, chartArea.top);
      ctx.lineTo(x, chartArea.bottom);
      ctx.stroke();
      ctx.font = font;
      ctx.textAlign = onRight ? 'right' : 'left';
      ctx.fillText(line.says, x + (onRight ? -6 : 6), chartArea.top + 12);
      ctx.restore();
    },
  };
}
