'use client';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { AskWorker } from '@/worker/ask-worker';
import type { VerifyAnswer, VerifyRequest } from '@/worker/verify';
import { Button } from '@/ui/kit/button';
import { FIELD, TextField } from '@/ui/kit/field';
import { KEY_FIGURES, keyFigures } from '@/wire/key-figures';

const start = () => new Worker(new URL('../../worker/verify.ts', import.meta.url), { type: 'module' });
/** Where there is no worker: the same check on the page; null where even that does not load. */
const here = (request: VerifyRequest): Promise<VerifyAnswer | null> =>
  import('@/worker/verify').then((v) => v.answerFile(request)).catch(() => null);

/** Anyone checks a record file or a bundle here: in this browser, without sending it anywhere. */
export function CheckFile() {
  const [answer, setAnswer] = useState<VerifyAnswer | null>(null);
  const [state, setState] = useState('');
  const [asker] = useState(() => new AskWorker(start, here));
  useEffect(() => () => asker.end(), [asker]);
  const [chosen, setChosen] = useState<File | null>(null);
  const [key, setKey] = useState('');
  const [anchor, setAnchor] = useState('');
  const wrongKey = key.trim() !== '' && !KEY_FIGURES.test(keyFigures(key));
  const check = async (file: File) => {
    setAnswer(null);
    setChosen(file);
    if (file.size > 500_000_000) {
      setState('That file is too large to be a record or a bundle.');
      return;
    }
    setState(`Checking ${file.name} …`);
    const expected = {
      ...(key.trim() && !wrongKey ? { key: keyFigures(key) } : {}),
      anchors: anchor.trim() ? [anchor] : [],
    };
    asker.ask({ bytes: await file.arrayBuffer(), expected }, (a) => {
      setAnswer(a);
      setState(
        a ? '' : 'This browser could not check the file. Use the command line: npm run -s verify -- FILE',
      );
    });
  };
  // a file chosen before the page was ready is taken up once it is
  const field = useRef<HTMLInputElement>(null);
  const early = useEffectEvent(() => {
    const file = field.current?.files?.[0];
    if (file) void check(file);
  });
  useEffect(() => early(), []);
  return (
    <>
      <h1 className="text-2xl font-bold">Check a file</h1>
      <p className="mt-2">
        A record file (JSON) or a bundle (ZIP) of Vast Stone. It is checked here in your browser; nothing is
        sent, and nobody has to be asked.
      </p>
      <label className="mt-4 block">
        <span className="text-sm">File</span>
        <input
          ref={field}
          type="file"
          accept=".json,.zip,application/json,application/zip"
          className={`${FIELD} mt-1 py-2`}
          onChange={(e) => {
            const file = e.target.files?.[0];
            if (file) void check(file);
          }}
        />
      </label>
      <details className="mt-3">
        <summary className="min-h-11 cursor-pointer py-2 text-lake">
          Hold it against what you were given: a key, a daily anchor
        </summary>
        <div className="grid gap-3 pb-2">
          <TextField
            label="First figures of the key, as the organisation gave them to you"
            value={key}
            onChange={setKey}
            maxLength={90}
            {...(wrongKey ? { wrong: 'Eight figures or more of 0 to 9 and a to f.' } : {})}
          />
          <TextField label="Anchor line, whole" value={anchor} onChange={setAnchor} maxLength={400} />
          <Button disabled={!chosen || wrongKey} onClick={() => chosen && void check(chosen)}>
            Check again
          </Button>
        </div>
      </details>
      <p role="status" className="mt-3 min-h-6">
        {state}
      </p>
      {answer && <Found answer={answer} />}
    </>
  );
}

/** What the check found, and what stands in the file. */
function Found({ answer }: { answer: VerifyAnswer }) {
  const { facts } = answer;
  return (
    <article className="grid gap-4">
      <div role="alert">
        <h2
          className={`border-l-4 pl-3 text-xl font-semibold ${answer.untouched ? 'border-moss' : 'border-rust text-rust'}`}
        >
          {answer.words}
        </h2>
      </div>
      {answer.faults.length > 0 && (
        <ul className="list-disc pl-5 wrap-anywhere text-rust" aria-label="What was changed">
          {answer.faults.map((f) => (
            <li key={f}>{f}</li>
          ))}
        </ul>
      )}
      {answer.marks.map((m) => (
        <p key={m} className="border-2 border-ink px-3 py-2 font-semibold">
          {m}
        </p>
      ))}
      {answer.notes.map((n) => (
        <p key={n}>{n}</p>
      ))}
      {facts && !answer.untouched && (
        <p className="text-quiet">What stands in the file now, which need not be what was sealed:</p>
      )}
      {facts && (
        <dl className="grid gap-x-6 sm:grid-cols-[11rem_1fr]">
          {(
            [
              ['Number', facts.number],
              ['What it is', `${facts.title}. ${facts.statusLine}`],
              ['Organisation', facts.organisation],
              ['Place', facts.place],
              ['Result', `${facts.label}. ${facts.sentence}`],
              ['Sealed', facts.sealed],
            ] as const
          ).map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="border-t border-seam pt-2 text-sm text-quiet">{name}</dt>
              <dd className="border-seam pb-2 sm:border-t sm:pt-2">{value}</dd>
            </div>
          ))}
          <div className="contents">
            <dt className="border-t border-seam pt-2 text-sm text-quiet">Signed with the key</dt>
            <dd className="border-seam pb-2 sm:border-t sm:pt-2">
              <span className="figure-narrow break-all">{facts.key}</span>
              <span className="block text-sm">
                The file proves that nothing was changed since this key signed it. Whose key it is, the
                organisation says: its first figures stand on its own page of Vast Stone.
              </span>
            </dd>
          </div>
          <div className="contents">
            <dt className="border-t border-seam pt-2 text-sm text-quiet">Fingerprint</dt>
            <dd className="figure-narrow border-seam pb-2 break-all sm:border-t sm:pt-2">{facts.hash}</dd>
          </div>
        </dl>
      )}
    </article>
  );
}
