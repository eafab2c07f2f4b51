/** A port that nothing listens on: the wished one, or the next free. */
export function freePort(wished: number, taken?: ReadonlySet<number>): Promise<number>;
export function startCluster(
  name: string,
  wishedPort: number,
  say?: (line: string) => void,
): Promise<{
  database(wanted: string, fresh?: boolean): Promise<{ owner: string; app: string; superuser: string }>;
  readonly pid: number;
  stop(): Promise<void>;
}>;
type Cluster = Awaited<ReturnType<typeof startCluster>>;
/** @param how `start` and `waits` are others' only in tests */
export function keptCluster<
  C extends { readonly child: unknown; stop(): Promise<void> } = Cluster & { child: unknown },
>(
  name: string,
  wishedPort: number,
  how?: {
    say?: (line: string) => void;
    start?: (name: string, port: number, say: (line: string) => void) => Promise<C>;
    waits?: readonly number[];
  },
): Promise<{ now(): C; stop(): Promise<void> }>;
