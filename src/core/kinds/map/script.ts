import type { EventOf } from '@/core/run/events';
import type { Verbs } from '@/core/run/verbs';

const ids = (text: string): string[] => text.split(',').filter(Boolean);
export const mapVerbs: Verbs = {
  /** saw WHAT FROM ON OFF PLUGGED [stood|joined|elsewhere TEXT]; lists with commas, '' for none. */
  saw: ({ args }) => {
    const [what = 'closed', from = '', on = '', off = '', plugged = '', how = '', text = ''] = args;
    return {
      kind: 'look',
      what: what as EventOf<'look'>['what'],
      from,
      on: ids(on),
      off: ids(off),
      plugged: ids(plugged),
      ...(how === 'stood' ? { stood: true } : {}),
      ...(how === 'joined' ? { joined: true } : {}),
      ...(how === 'elsewhere' ? { elsewhere: text } : {}),
    };
  },
  /** lookback N WHY: the nth look of this run. */
  lookback: ({ state, first, second }) => ({
    kind: 'look-back',
    look: state.rooms.map.seen[Number(first) - 1]!.look.id,
    why: second,
  }),
  endfound: ({ args: [end = '', name = '', type = 'other', near = ''] }) => ({
    kind: 'end-found',
    end,
    name,
    type: type as EventOf<'end-found'>['type'],
    near,
  }),
};
