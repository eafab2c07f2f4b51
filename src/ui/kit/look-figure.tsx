/** What to look for, in the line of the installation's drawing: enough to know it again, no more. */
const LEVER = { open: 'M24 24H44 M24 20V28', closed: 'M24 24V6 M20 24H28' } as const;

/** A valve as it should stand: its lever along the pipe, or across it. */
export const ValveFigure = ({ position }: { position: keyof typeof LEVER }) => (
  <svg viewBox="0 0 48 48" className="size-12 shrink-0" aria-hidden focusable="false" data-valve={position}>
    <g fill="none" stroke="currentColor" strokeWidth={2}>
      <path d="M2 20H14V16H34V20H46 M2 30H14V34H34V30H46" />
      <path d="M14 20V30 M34 20V30" strokeWidth={1} />
      <path d={LEVER[position]} strokeWidth={4} />
    </g>
  </svg>
);

/** Where a gauge goes on. */
const CONNECTIONS = {
  // a nipple on the outlet of the meter, its screw inside
  appliances: 'M4 30H84V44H4Z M40 30V24H52V30 M43 24V12H49V24 M40 12H52 M46 6V12',
  // a cleanout, its cap off and beside it
  surfaces: 'M4 54H30 M62 54H88 M30 18V54 M62 18V54 M26 18H66 M70 12H88V18H70Z M30 54L14 64 M62 54L78 64',
  // a manifold with a filling valve at its end
  loops: 'M18 14H84 M18 24H84 M18 14V24 M4 19H18 M30 24V58H42V24 M54 24V58H66V24 M6 11L14 27V11L6 27Z',
} as const;
/** @param at what stands on the branches of the place; nothing is drawn where no one way is usual */
export const ConnectionFigure = ({ at }: { at: string | undefined }) =>
  at !== undefined && Object.hasOwn(CONNECTIONS, at) ? (
    <svg
      viewBox="0 0 92 68"
      className="h-14 w-20 shrink-0"
      aria-hidden
      focusable="false"
      data-connection={at}
    >
      <path
        d={CONNECTIONS[at as keyof typeof CONNECTIONS]}
        fill="none"
        stroke="currentColor"
        strokeWidth={2}
        strokeLinejoin="miter"
      />
    </svg>
  ) : null;
