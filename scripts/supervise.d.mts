/** Builds the application, unless the same sources are built already. @returns whether it was */
export function build(say?: (line: string) => void): Promise<boolean>;
/** Migrates and, where the database is still empty, loads the demo. */
export function prepare(
  addresses: { owner: string; app: string },
  how: { demo: boolean; peopleFile: string; idsFile: string; second?: boolean },
  say?: (line: string) => void,
): Promise<void>;
/** Starts web server and stand-in gauge over one database; `ready` resolves when they answer. */
export function startProcesses(how: {
  addresses: { app: string };
  port: number;
  gaugePort: number;
  gaugeFolder: string;
  extra?: Readonly<Record<string, string>>;
  /** So often in a row the web server may end before it is given up. */
  most?: number;
}): {
  readonly url: string;
  readonly webPid: () => number;
  stop(): Promise<unknown>;
  readonly ready: Promise<void>;
};
