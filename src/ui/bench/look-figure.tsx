/** What a valve looks like as it should stand: its lever along the pipe, or across it. In the line of the installation's drawing. */
const LEVER = { open: 'M24 24H44 M24 20V28', closed: 'M24 24V6 M20 24H28' } as const;

export const ValveFigure = ({ position }: { position: keyof typeof LEVER }) => (
  <svg viewBox="0 0 48 48" className="size-12 shrink-0" aria-hidden focusable="false" data-valve={position}>
    <g fill="none" stroke="currentColor" strokeWidth={2}>
      <path d="M2 20H14V16H34V20H46 M2 30H14V34H34V30H46" />
      <path d="M14 20V30 M34 20V30" strokeWidth={1} />
      <path d={LEVER[position]} strokeWidth={4} />
    </g>
  </svg>
);
