/** What stands before a person, drawn in the line of the installation: enough to know it again, no more. */
const LINES: Readonly<Record<string, string>> = {
  // a box meter with two pipes on top and a small window
  'gas-meter': 'M22 26H74V58H22Z M32 26V8 M64 26V8 M34 34H62V42H34Z M28 8H36 M60 8H68',
  // a tall meter on a bar, dial in its middle
  'gas-other': 'M30 20H66V60H30Z M38 20V8H58V20 M40 30H56V40H40Z M36 50H60',
  // a pipe that comes through a wall, with its valve
  'gas-none': 'M18 6V62 M26 6V62 M26 34H46 M62 34H86 M46 26L62 42V26L46 42Z',
  // a cylinder with its regulator and hose
  propane: 'M20 28Q20 20 30 20H42Q52 20 52 28V60H20Z M32 20V12H40V20 M40 14H54V22H64V14H54 M64 18H78V58',
  // a pump on a tank, and a pipe that goes up
  'water-pipes': 'M12 40H44V62H12Z M28 40V24 M18 24H38 M44 54H62V10H84 M62 30H84 M62 46H84',
  // a manifold with loops
  loops: 'M10 14H86 M10 22H86 M22 14V6 M22 22V58H36V22 M50 22V58H64V22 M78 22V58 M22 6H30',
  // a round meter in a pipe, a tap at its end
  'house-supply': 'M8 44H28 M28 32H52V56H28Z M34 38H46V46H34Z M52 44H74V54 M66 44V34 M58 34H74',
  // a cleanout above ground, the drain below
  drain: 'M6 26H40 M56 26H90 M40 12V44 M56 12V44 M36 12H60 M40 44L20 62 M56 44L36 62 M60 34H88',
  // a pipe under the ground between two flanges
  main: 'M4 16H92 M10 16L16 8 M30 16L36 8 M50 16L56 8 M70 16L76 8 M18 36V60 M24 36V60 M24 42H72 M24 54H72 M72 36V60 M78 36V60',
  // a coach body on wheels with a filling cap
  'vehicle-water': 'M10 14H86V48H10Z M24 48V58H36V48 M60 48V58H72V48 M18 22H44V34H18Z M68 26H78V36H68Z',
  // a basin with a skimmer and two returns, seen from above
  pool: 'M10 12H86V58H10Z M18 20H78V50H18Z M10 30H18 M78 28H86 M78 42H86 M44 50V58 M40 32H56V40H40Z',
  // a condensing unit, two lines, an evaporator
  circuit:
    'M8 22H36V56H8Z M14 30H30V48H14Z M36 28H60 M36 46H60 M60 18H88V56H60Z M66 18V56 M74 18V56 M82 18V56',
  // a trunk with two branches and registers
  ducts: 'M8 26H88V38H8Z M26 38V54 M40 38V54 M20 54H46 M60 38V54 M74 38V54 M54 54H80 M8 20V44',
};
export const BeforeYouFigure = ({ of }: { of: string }) => (
  <svg viewBox="0 0 96 68" className="h-16 w-24 shrink-0" aria-hidden focusable="false">
    <path d={LINES[of] ?? ''} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="miter" />
  </svg>
);
export const FIGURES = Object.keys(LINES);
