import * as yup from 'yup';
import { answer, bodyOf, signedIn } from '@/server/handle';
import { clockIsAdjustable, clockShift, now, shiftClock } from '@/server/now';
import { notHere } from '@/server/trouble';

const schema = yup
  .object({
    shift: yup.number().strict(true).integer().required(),
    /** The browser's clock is moved next: until the clock is set once more nobody is told the time. */
    moving: yup.boolean().strict(true).optional(),
  })
  .noUnknown()
  .strict(true)
  .required();
/** Shifts the clock of a server that was started with VAST_TEST_CLOCK=1 over a database of the tests; elsewhere there is nothing here. */
export const POST = signedIn('govern', async (_session, request) => {
  if (!clockIsAdjustable()) throw notHere();
  const { shift, moving } = await bodyOf(request, schema);
  shiftClock(shift, moving);
  return answer({ now: now() });
});
/** How far that clock is shifted, so that tests that begin anew do not turn it back. */
export const GET = signedIn('govern', async () => {
  if (!clockIsAdjustable()) throw notHere();
  return answer({ shift: clockShift() });
});
