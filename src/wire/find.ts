/** What is found when somebody looks for anything, in the order in which it is shown. */
export const FIND_KINDS = {
  place: 'Places',
  system: 'Installations',
  customer: 'Customers',
  plate: 'Appliances and serials',
  gauge: 'Gauges and kit',
  record: 'Records',
  person: 'People',
  procedure: 'Procedures',
  topic: 'Guide',
  page: 'Pages',
} as const;
export type FindKind = keyof typeof FIND_KINDS;
export interface Found {
  readonly kind: FindKind;
  readonly title: string;
  readonly about: string;
  readonly href: string;
}
/** Fewer letters name nothing. */
export const LEAST_FIND = 2;
export const MOST_FIND = 100;
