import { role } from '../role';

/** The fall itself is what is measured; what it means is judged by what is drawn off after it. */
export const decay = role('decay', {
  title: 'unaided hour',
  against: 'nothing',
  measures: 'lost',
  says: 'nobody pumps; how far it falls is measured, not judged',
  outcomes: () => ['held', 'fell', 'rose'],
  good: () => 'fell',
  words: { held: 'held', fell: 'fell', rose: 'rose' },
});
