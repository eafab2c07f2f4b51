export interface ShellManifest {
  readonly build: string;
  readonly shell: readonly string[];
  readonly all: readonly string[];
}
export function shellManifest(dist: string): ShellManifest;
export function writeShellManifest(dist: string): void;
