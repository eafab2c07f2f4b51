import { readFileSync } from 'node:fs';
import { PackError } from '@/core/pack/error';
import { loadPack } from '@/core/pack/load';
import { canonical } from '@/core/record/canonical';
import { sealedVerdict } from '@/core/record/record';
import { verifySeal } from '@/core/record/seal';
import { restoreBody } from '@/core/record/restore';
import { parseEvent } from '@/core/run/events';
import { reduce } from '@/core/run/reduce';
import { verdictOf } from '@/core/verdict/verdict';
import { readRecordFile, RecordFileError } from '@/wire/record-file';

/** Reads an exported record, judges its log again and compares. Exit 0 agrees, 1 differs, 2 unreadable. */
function rejudge(file: string): number {
  let path = '';
  try {
    const record = readRecordFile(readFileSync(file, 'utf8'));
    path = 'body';
    const body = restoreBody(record.body);
    path = 'body.plan.procedure';
    const { hash: _hash, ...pack } = body.plan.pack;
    loadPack({ format: 1, ...pack, procedures: [body.plan.procedure] });
    const events = body.events.map((e, i) => {
      path = `body.events[${i}]`;
      const { position, received: _received, ...event } = e;
      return { ...parseEvent(event), position: position! };
    });
    path = 'body.verdict';
    const verdict = verdictOf(body.plan, reduce(body.plan, events));
    if (!verdict) throw new RecordFileError('body.events', 'The log ends before the run has ended.');
    const faults = verifySeal(record);
    const agrees = faults.length === 0 && canonical(sealedVerdict(verdict)) === canonical(body.verdict);
    const { word, sentence, reasons, stages } = verdict;
    console.log(
      JSON.stringify(
        {
          verdict: word,
          sentence,
          reasons,
          stages,
          sealedVerdict: body.verdict.word,
          agrees,
          ...(faults.length ? { faults } : {}),
        },
        null,
        2,
      ),
    );
    return agrees ? 0 : 1;
  } catch (error) {
    const e = error as Error & { path?: string; code?: string };
    const where =
      e instanceof RecordFileError
        ? e.path
        : e instanceof PackError
          ? `body.plan.procedure: ${e.path}`
          : [path, e.path].filter(Boolean).join('.');
    const text = e.code === 'ENOENT' ? `There is no file ${file}.` : e.message;
    console.log(JSON.stringify({ error: { path: where, text } }, null, 2));
    return 2;
  }
}

const file = process.argv[2];
if (!file) {
  console.log(
    JSON.stringify({
      error: { path: '', text: 'Name the exported record: npm run -s rejudge -- FILE.json' },
    }),
  );
  process.exitCode = 2;
} else process.exitCode = rejudge(file);
