import * as yup from 'yup';
import { answer, bodyOf, open } from '@/server/handle';
import { clockIsAdjustable, clockShift, now, shiftClock } from '@/server/now';
import { notHere } from '@/server/trouble';

const schema = yup
  .object({ shift: yup.number().strict(true).integer().required() })
  .noUnknown()
  .strict(true)
  .required();
/** Shifts the clock of a server that was started with VAST_TEST_CLOCK=1; elsewhere there is nothing here. */
export const POST = open(async (request) => {
  if (!clockIsAdjustable()) throw notHere();
  const { shift } = await bodyOf(request, schema);
  shiftClock(shift);
  return answer({ now: now() });
});
/** How far that clock is shifted, so that tests that begin anew do not turn it back. */
export const GET = open(async () => {
  if (!clockIsAdjustable()) throw notHere();
  return answer({ shift: clockShift() });
});
