import { isDay } from '@/core/quantity/local-date';
import * as yup from 'yup';
import type { Dimension } from '@/core/quantity/unit';
import { figureTrouble } from './figure-trouble';

export const text = (most: number) => yup.string().strict(true).required('is needed').max(most);
/** Text that may be empty. */
export const free = (most: number) => yup.string().strict(true).defined().max(most);
export const uuid = () => text(36).matches(/^[0-9a-f-]{36}$/, 'is not an id');
export const shape = <S extends yup.ObjectShape>(fields: S) =>
  yup.object(fields).noUnknown().strict(true).required();
export const list = <T>(of: yup.ISchema<T>, most: number) => yup.array(of).strict(true).max(most).required();
export const NO_DAY = 'is not a day, like 2026-11-24';
export const isoDay = () => text(10).test('day', NO_DAY, (v) => isDay(v));
/** A day, or none. */
export const maybeDay = () => free(10).test('day', NO_DAY, (v) => !v || isDay(v));

/** A figure with its unit on the wire: "21 mbar". */
export const figure = (dimension: Dimension, least?: 'above zero' | 'zero') =>
  text(40).test('figure', (value, context) => {
    const trouble = figureTrouble(value, dimension, least);
    return trouble ? context.createError({ message: trouble }) : true;
  });
/** A figure that a gauge shows: above the atmosphere, or absolute as a vacuum is read. */
export const gaugeFigure = (least?: 'above zero' | 'zero') =>
  text(40).test('figure', (value, context) => {
    const pressed = figureTrouble(value, 'pressure', least);
    const trouble = pressed && figureTrouble(value, 'absolute', least) ? pressed : '';
    return trouble ? context.createError({ message: trouble }) : true;
  });
/** The same where it may stay empty. */
export const optionalFigure = (dimension: Dimension, least?: 'above zero' | 'zero') =>
  free(40).test('figure', (value, context) => {
    const trouble = value ? figureTrouble(value, dimension, least) : '';
    return trouble ? context.createError({ message: trouble }) : true;
  });
