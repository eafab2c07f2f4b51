/** @returns how large the copy is, in words */
export function backup(url: string, file: string): string;
/** @returns what was checked, in words */
export function restore(url: string, file: string): Promise<string>;
