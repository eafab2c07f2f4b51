/** Pools: plugs and pressures of a line, thrust on a plug, and what a pool loses beside a bucket. Source: published practice of pool lines */
const PSI = 6894.757293;
/** Two inches: pipe above it is pressed less, because its plugs push harder. m; the last digits allow for converted sizes. */
const TWO_INCHES = 0.0508 + 1e-9;

/** Plugs of a line: all its ends but one closed, and one open plug for the pressure; a line with one end takes that alone. @throws RangeError */
export function plugsFor(ends: number): { closed: number; open: number } {
  if (!Number.isInteger(ends) || ends < 1)
    throw new RangeError('A line has one end or more: count outlets and equipment connections.');
  return { closed: ends - 1, open: 1 };
}
/** Schools of leak work on standing pools, and the code's duty for new pipe before it is covered. */
export type PoolSchool = 'narrow' | 'wide' | 'air' | 'code';
interface Band {
  readonly low: number;
  readonly high: number;
}
/** Bands of the schools in psi, to 2 in and above. The lower ends of narrow above 2 in and of air are house figures. */
const BANDS: Readonly<Record<PoolSchool, readonly [small: Band, large: Band]>> = {
  narrow: [
    { low: 15, high: 20 },
    { low: 10, high: 15 },
  ],
  wide: [
    { low: 10, high: 25 },
    { low: 5, high: 15 },
  ],
  air: [
    { low: 10, high: 15 },
    { low: 5, high: 10 },
  ],
  code: [
    { low: 25, high: 35 },
    { low: 25, high: 35 },
  ],
};
/** Where the pump's pressure or a plug's rating is not known: 15 psi to 2 in, 10 above. House figure */
const UNKNOWN = [15, 10] as const;
/** A gauge needs some room under a cap: a band reaches down to this part of it. House figure */
const ROOM = 0.9;
const sizeRow = (diameter: number): 0 | 1 => {
  if (!(diameter > 0)) throw new RangeError('The pipe size must be above zero.');
  return diameter <= TWO_INCHES ? 0 : 1;
};
/** Pressure band of a school by pipe size, Pa. @param diameter m @throws RangeError on a size of zero */
export function poolBand(diameter: number, school: PoolSchool): Band {
  const { low, high } = BANDS[school][sizeRow(diameter)]!;
  return { low: low * PSI, high: high * PSI };
}
export interface PoolPressure extends Band {
  /** What sets the upper end. */
  readonly by: 'school' | 'pump' | 'plug' | 'unknown';
  /** It lies below the school's band. */
  readonly impossible: boolean;
}
/**
 * The band under its caps, Pa. Plug rating at that bore caps every school; the pump's working pressure caps narrow and air and is
 * only printed beside wide, and says nothing of new pipe that no pump is on yet; what is not known is taken as 15 psi to 2 in, 10 above.
 * @param pump, plug Pa; null: not known @throws RangeError on a figure of zero or less
 */
export function poolPressure(
  diameter: number,
  school: PoolSchool,
  pump: number | null,
  plug: number | null,
): PoolPressure {
  const pumped = school === 'narrow' || school === 'air';
  const band = poolBand(diameter, school);
  if ((pump !== null && !(pump > 0)) || (plug !== null && !(plug > 0)))
    throw new RangeError('Pump pressure and plug rating must be above zero.');
  const caps: readonly (readonly [PoolPressure['by'], number])[] = [
    ['school', band.high],
    ...(plug === null ? [] : ([['plug', plug]] as const)),
    ...(pump === null || !pumped ? [] : ([['pump', pump]] as const)),
    ...((pump === null && school !== 'code') || plug === null
      ? ([['unknown', UNKNOWN[sizeRow(diameter)] * PSI]] as const)
      : []),
  ];
  const [by, cap] = caps.reduce((least, c) => (c[1] < least[1] ? c : least));
  return { low: Math.min(band.low, ROOM * cap), high: cap, by, impossible: cap < band.low };
}
/** Force that drives a plug out: pressure times bore area, N. @param pressure gauge, Pa  @param bore m @throws RangeError */
export function plugThrust(pressure: number, bore: number): number {
  if (!(pressure >= 0) || !(bore > 0)) throw new RangeError('Pressure and bore must be above zero.');
  return (pressure * Math.PI * bore ** 2) / 4;
}

/** A pool and a bucket standing in it, marked together and read together. Heights from the mark down, m. */
export interface BucketMarks {
  readonly pool: number;
  readonly bucket: number;
  readonly hours: number;
}
export interface PoolLoss {
  /** What evaporation took, m: the bucket's fall. */
  readonly evaporation: number;
  /** Beyond evaporation, m; below zero: the pool rose against the bucket. */
  readonly loss: number;
  /** m3/s over the surface; null where the surface is not known. */
  readonly rate: number | null;
}
/**
 * What a pool loses beyond evaporation: its fall less the bucket's. @param surface m2, null: not known
 * @throws RangeError on a time or surface of zero. Source: comparison of two free surfaces in the same weather
 */
export function bucketLoss({ pool, bucket, hours }: BucketMarks, surface: number | null): PoolLoss {
  if (!(hours > 0)) throw new RangeError('The time between the readings must be above zero.');
  if (surface !== null && !(surface > 0)) throw new RangeError('The surface of the pool must be above zero.');
  const loss = pool - bucket;
  return { evaporation: bucket, loss, rate: surface === null ? null : (loss * surface) / (hours * 3600) };
}
