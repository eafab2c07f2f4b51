import { signedIn } from '@/server/handle';
import { listen } from '@/server/runs/bus';
import { readRun } from '@/server/runs/log';

export const dynamic = 'force-dynamic';
const HEARTBEAT_MS = 15_000;

/** Server-sent events of a run: the gauge's display and "the log grew". Nothing is held open in the database. */
export const GET = signedIn<{ run: string }>('read', async (session, request, { run }) => {
  await readRun(session, run, Number.MAX_SAFE_INTEGER >> 22);
  const encoder = new TextEncoder();
  let stop = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const off = listen(session.org, run, (news) =>
        send(
          news.kind === 'log'
            ? 'event: log\ndata: {}\n\n'
            : news.kind === 'refused'
              ? `event: refused\ndata: ${JSON.stringify(news)}\n\n`
              : `event: gauge\nid: ${news.at}\ndata: ${JSON.stringify(news)}\n\n`,
        ),
      );
      const beat = setInterval(() => send(': here\n\n'), HEARTBEAT_MS);
      stop = () => {
        off();
        clearInterval(beat);
      };
      send('retry: 2000\n\n');
      request.signal.addEventListener('abort', () => {
        stop();
        try {
          controller.close();
        } catch {
          /* already closed */
        }
      });
    },
    cancel: () => stop(),
  });
  return new Response(body, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-cache, no-transform',
      'x-accel-buffering': 'no',
    },
  });
});
