'use client';
import { office } from '@/device/office';
import { useAttempt } from '@/ui/kit/use-attempt';
import { type JobForm, type JobKind, type JobSeen, PIECE_BYTES, UNDER_WAY } from '@/wire/jobs';
import { useCallback, useEffect, useState } from 'react';

const LOOK_MS = 1_500;
/** Piece by piece, so that none takes long. */
const PIECE_MS = 60_000;
export const isUnderWay = (job: JobSeen): boolean => UNDER_WAY.includes(job.state);

/** Long work of these kinds, looked at while it is under way; asked for, stopped, and a file sent for it. */
export function useJobs(kinds: readonly JobKind[]) {
  const [jobs, setJobs] = useState<readonly JobSeen[]>([]);
  const { busy, trouble, attempt } = useAttempt();
  const [sent, setSent] = useState<{
    readonly id: string;
    readonly of: number;
    readonly done: number;
  } | null>(null);
  const look = useCallback(
    () => office<{ jobs: readonly JobSeen[] }>('/api/jobs').then((a) => setJobs(a.jobs)),
    [],
  );
  useEffect(() => {
    look().catch(() => undefined); // no signal: what there was is not shown, what is asked for says so
  }, [look]);
  const goesOn = jobs.some(isUnderWay);
  useEffect(() => {
    if (!goesOn) return;
    const timer = setInterval(() => void look().catch(() => undefined), LOOK_MS);
    return () => clearInterval(timer);
  }, [goesOn, look]);
  const ask = (form: Partial<JobForm> & { kind: JobKind }, file?: File) =>
    attempt(async () => {
      const body = file ? { ...form, file: file.name.slice(-200), bytes: file.size } : form;
      const { id } = await office<{ id: string }>('/api/jobs', { body });
      await look();
      if (!file) return;
      for (let n = 0; n * PIECE_BYTES < file.size; n += 1) {
        setSent({ id, of: file.size, done: n * PIECE_BYTES });
        await office(`/api/jobs/${id}/pieces/${n}`, {
          method: 'PUT',
          file: file.slice(n * PIECE_BYTES, (n + 1) * PIECE_BYTES),
          signal: AbortSignal.timeout(PIECE_MS),
        });
      }
      await office(`/api/jobs/${id}`, { body: { act: 'begin' } });
      await look();
    }).finally(() => setSent(null));
  const stop = (id: string) =>
    attempt(async () => {
      await office(`/api/jobs/${id}`, { body: { act: 'stop' } });
      await look();
    });
  return {
    jobs: jobs.filter((j) => kinds.includes(j.kind)),
    /** Something is under way, of whatever kind: one at a time. */
    goesOn,
    busy,
    trouble,
    sent,
    ask,
    stop,
  };
}
