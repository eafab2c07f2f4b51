import type { LogMapping } from '@/core/gauge-log/mapping';
import { unitTrouble } from '@/core/gauge-log/read-log';
import { gaugeOf } from '@/core/run/read';
import { BenchEngine } from '@/device/bench';
import { readIdentity } from '@/device/identity';

const AT_ONCE = 600;

/** Appends the readings that fall into the run, in the unit and steps of the gauge that judges. @returns what was done */
export async function appendLog(log: {
  run: string;
  file: string;
  hash: string;
  text: string;
  mapping: LogMapping;
  zone: string;
  began?: number;
}): Promise<string> {
  const who = readIdentity();
  if (!who) throw new Error('You are signed out. Sign in again.');
  const { answerLog } = await import('@/worker/gauge-log');
  const engine = await BenchEngine.open(log.run, who);
  try {
    await engine.sync();
    const { plan, state } = engine.snapshot()!;
    const gauge = gaugeOf(plan, state);
    if (!gauge || !state.gauge) throw new Error('Choose the gauge of this run on the bench first.');
    const { unit, scale } = gauge.resolution;
    const wrong = unitTrouble(log.mapping.pressure.unit, unit);
    if (wrong) throw new Error(wrong);
    const { read } = answerLog({
      text: log.text,
      mapping: log.mapping,
      zone: log.zone,
      unit,
      to: { unit, scale },
      ...(log.began === undefined ? {} : { began: log.began }),
    });
    const from = state.visits[0]?.entered ?? Infinity;
    const to = state.ending?.at ?? Infinity;
    const points = read.points.filter((p) => p.at >= from && p.at <= to);
    if (!points.length)
      throw new Error(
        'No reading of the log lies within the time of this run. Check the day, the zone and how far the gauge’s clock was ahead.',
      );
    for (let i = 0; i < points.length; i += AT_ONCE) {
      const answer = await engine.append({
        kind: 'stream',
        gauge: state.gauge,
        simulated: gauge.simulated,
        unit,
        scale,
        points: points.slice(i, i + AT_ONCE).map((p) => [p.at, p.digits] as const),
        imported: { file: log.file, hash: log.hash },
      });
      if (!answer.accepted) throw new Error(answer.text);
    }
    await engine.sync();
    return `${points.length} readings of ${log.file} stand in the run now.`;
  } finally {
    engine.close();
  }
}
