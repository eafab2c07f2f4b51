'use client';
/** A figure that was being typed when its stage ended under the hands: kept until the person says what becomes of it. */
export interface Draft {
  readonly text: string;
  readonly unit: string;
  readonly label: string;
}
let orphan: Draft | null = null;
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((l) => l());

export const orphanDraft = (): Draft | null => orphan;
export function leaveDraft(draft: Draft): void {
  orphan = draft;
  tell();
}
export function settleDraft(): void {
  orphan = null;
  tell();
}
export function watchDraft(hear: () => void): () => void {
  listeners.add(hear);
  return () => listeners.delete(hear);
}
