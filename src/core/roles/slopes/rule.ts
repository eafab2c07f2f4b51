import { role } from '../role';

/** A closed valve left alone at one of two pressures: the two slopes tell valve and leak apart. It judges nothing by itself. */
export const slopes = role('slopes', {
  title: 'valve and leak apart',
  against: 'nothing',
  says: 'touch nothing; what it moves is set beside the other pressure',
  outcomes: () => ['measured'],
  good: () => 'measured',
  apart: true,
  paper: 'utility',
  words: { measured: 'measured' },
});
