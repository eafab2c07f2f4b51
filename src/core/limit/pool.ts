/** Pools: plugs and pressures of a line. Source: published practice of pool lines */
const PSI = 6894.757293;

/** Plugs of a line: all its ends but one closed, and one open plug for the pressure; a line with one end takes that alone. @throws RangeError */
export function plugsFor(ends: number): { closed: number; open: number } {
  if (!Number.isInteger(ends) || ends < 1)
    throw new RangeError('A line has one end or more: count outlets and equipment connections.');
  return { closed: ends - 1, open: 1 };
}
/** Pressure bands of the two schools, psi: wide by pipe size, narrow whatever the size. */
export function poolBand(diameter: number, school: 'narrow' | 'wide'): { low: number; high: number } {
  if (!(diameter > 0)) throw new RangeError('The pipe size must be above zero.');
  if (school === 'narrow') return { low: 15 * PSI, high: 20 * PSI };
  return diameter <= 0.0508 + 1e-9 ? { low: 10 * PSI, high: 25 * PSI } : { low: 5 * PSI, high: 15 * PSI };
}
/** The band under its caps: pump working pressure and plug rating. `impossible`: the cap lies below the band. */
export function poolPressure(
  diameter: number,
  school: 'narrow' | 'wide',
  pump: number,
  plug: number,
): { low: number; high: number; cap: number; impossible: boolean } {
  const band = poolBand(diameter, school);
  const cap = Math.min(pump, plug);
  if (!(cap > 0)) throw new RangeError('Pump pressure and plug rating must be above zero.');
  const high = Math.min(band.high, cap);
  return { low: Math.min(band.low, high), high, cap, impossible: cap < band.low };
}
