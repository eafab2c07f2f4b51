import type * as yup from 'yup';
import { figure, free, optionalFigure, shape, text } from './figure';

/** A run of pipe as it is entered, by its table and size or by its own diameters. */
export const pipeSchema = shape({
  id: text(60),
  name: text(80),
  table: free(40),
  nominal: free(40),
  material: text(60),
  size: figure('length', 'above zero'),
  bore: figure('length', 'above zero'),
  length: figure('length', 'above zero'),
  rating: optionalFigure('pressure', 'above zero'),
});
export type PipeForm = yup.InferType<typeof pipeSchema>;
