interface Plot {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** Ticks of both axes, with a line across for each of y. @param under how far the words of x stand below the plot */
export function Axes({
  plot,
  xTicks,
  yTicks,
  under = 16,
}: {
  plot: Plot;
  xTicks: readonly { readonly x: number; readonly label: string }[];
  yTicks: readonly { readonly y: number; readonly label: string }[];
  under?: number;
}) {
  return (
    <g fontSize={13} fill="var(--ink)" className="figure-narrow">
      {yTicks.map((t) => (
        <g key={t.label}>
          <line x1={plot.left} x2={plot.right} y1={t.y} y2={t.y} stroke="var(--seam)" />
          <text x={plot.left - 6} y={t.y} textAnchor="end" dominantBaseline="central">
            {t.label}
          </text>
        </g>
      ))}
      {xTicks.map((t) => (
        <text key={t.x} x={t.x} y={plot.bottom + under} textAnchor="middle">
          {t.label}
        </text>
      ))}
    </g>
  );
}

/** A line down the plot. */
export const Upright = ({
  plot,
  x,
  stroke,
  ...rest
}: {
  plot: Plot;
  x: number;
  stroke: string;
  strokeWidth?: number;
  strokeDasharray?: string;
}) => <line x1={x} x2={x} y1={plot.top} y2={plot.bottom} stroke={stroke} {...rest} />;

/** A line across the plot. */
export const Level = ({
  plot,
  y,
  stroke,
  ...rest
}: {
  plot: Plot;
  y: number;
  stroke: string;
  strokeWidth?: number;
  strokeDasharray?: string;
}) => <line x1={plot.left} x2={plot.right} y1={y} y2={y} stroke={stroke} {...rest} />;
