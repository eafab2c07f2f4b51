/** One line of a chart: what it is and how it is drawn. */
export interface KeyLine {
  readonly words: string;
  readonly colour: string;
  /** Of the stroke; none: solid. */ readonly dash: string;
}
/** Which line of a chart is which. */
export const LineKey = ({ lines }: { lines: readonly KeyLine[] }) => (
  <ul className="flex flex-wrap gap-x-4 text-sm text-quiet" aria-label="Lines of the chart">
    {lines.map(({ words, colour, dash }) => (
      <li key={words} className="flex items-center gap-1.5">
        <svg width="26" height="8" aria-hidden>
          <path d="M1,4L25,4" stroke={colour} strokeWidth={2} strokeDasharray={dash} />
        </svg>
        {words}
      </li>
    ))}
  </ul>
);
