export function startCluster(
  name: string,
  wishedPort: number,
  say?: (line: string) => void,
): Promise<{
  database(wanted: string, fresh?: boolean): Promise<{ owner: string; app: string; superuser: string }>;
  stop(): Promise<void>;
}>;
