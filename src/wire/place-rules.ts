/** What a place must say of pressure and meter, however it is entered. */
import { NO_METER } from '@/core/network/installation';
import { tradeFor } from '@/core/trades';
import type * as yup from 'yup';

const isNothing = (figure: string): boolean => /^0+(\.0*)? /.test(figure);
/** A pressure that the place works at: above zero, but for a drain. */
export const pressureRule =
  (...paths: string[]) =>
  (value: { readonly medium: string }, context: yup.TestContext) => {
    const said = value as Readonly<Record<string, unknown>>;
    const path =
      tradeFor(value.medium)?.pressed === false || tradeFor(value.medium)?.pressureOf
        ? undefined
        : paths.find((p) => isNothing(String(said[p])));
    return path ? context.createError({ path, message: 'must be above zero' }) : true;
  };
/** A meter that is there holds gas. */
export const meterRule = (
  value: { readonly meterKind: string; readonly meterVolume: string },
  context: yup.TestContext,
) =>
  !NO_METER.includes(value.meterKind) && isNothing(value.meterVolume)
    ? context.createError({
        path: 'meterVolume',
        message: 'A meter holds gas: type the volume of its class, never 0.',
      })
    : true;
