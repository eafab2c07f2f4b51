// A gauge that sends what it shows, as small as it can be: figures come in on standard input, one a line ("20.5"), from a serial port,
// another program, or a keyboard. Node 20 or newer, nothing to install.
//   node client.mjs https://office.example CODE mbar 1 < /dev/ttyUSB0
// CODE is shown in the Cabinet or on the bench (or the whole text of its picture); then unit and decimals of the display.
import { randomUUID } from 'node:crypto';
import { createInterface } from 'node:readline';

const [office, said = '', unit = 'mbar', decimals = '1'] = process.argv.slice(2);
const code = said.split('#').pop();
const scale = Number(decimals);
const LIVE_MS = 1000; // what it shows now, for the open benches
const BATCH_MS = 10_000; // what it showed, for the log
let token = '';
let ahead = 0; // the office's clock before this one's
const points = [];
const waiting = []; // batches the office has not taken yet: none is lost while it is away
let sequence = 0;

async function post(path, body) {
  const answer = await fetch(`${office}/api/gauge/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...(token ? { authorization: `Bearer ${token}` } : {}) },
    body: JSON.stringify(body),
  });
  const told = await answer.json();
  if (answer.ok) ahead = told.now - Date.now();
  return { status: answer.status, told };
}
const now = () => Date.now() + ahead;

const paired = await post('pair', { code, device: `example client on ${process.platform}` });
if (paired.status !== 200) throw new Error(paired.told.error?.text ?? `answered ${paired.status}`);
token = paired.told.token;
console.error('Paired. It sends until it is stopped.');

createInterface({ input: process.stdin }).on('line', (line) => {
  const figure = Number(line.trim().replace(',', '.'));
  if (line.trim() && Number.isFinite(figure)) points.push([now(), Math.round(figure * 10 ** scale)]);
});
let began = Date.now();
let busy = false;
setInterval(async () => {
  if (busy || (!points.length && !waiting.length)) return;
  busy = true;
  const live = points.slice(-1);
  if (points.length && Date.now() - began >= BATCH_MS) {
    waiting.push({ id: randomUUID(), sequence: (sequence += 1), points: points.splice(0, 600) });
    began = Date.now();
  }
  const [batch] = waiting;
  try {
    const { status, told } = await post('readings', {
      live: live.length ? live : batch.points.slice(-1),
      scale,
      unit,
      ...(batch ? { batch } : {}),
    });
    // taken, or refused for good: only what may be taken later is kept
    if (batch && status < 500) waiting.shift();
    if (status >= 400) console.error(told.error?.text ?? status);
    if (status === 401) process.exit(1);
  } catch (error) {
    console.error(`The office does not answer (${error.message}); ${waiting.length} batches wait.`);
  }
  busy = false;
}, LIVE_MS);
