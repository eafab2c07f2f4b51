/** Personal protection by task. Source: the work, cautions and needs N043 to N046 */
export const PROTECTION_TASKS: Readonly<
  Record<string, { readonly task: string; readonly items: readonly string[] }>
> = {
  prepare: {
    task: 'Opening up and preparing',
    items: ['gloves', 'eye protection', 'lamp that is no ignition source'],
  },
  metalwork: {
    task: 'Parting metal pipe',
    items: ['voltage detector, proved before and after', 'temporary continuity bond', 'gloves'],
  },
  raise: {
    task: 'Raising and holding pressure',
    items: ['eye protection', 'ear protection for the release', 'boots', 'hose restraint', 'area cleared'],
  },
  fluid: {
    task: 'Leak fluid on joints',
    items: ['eye protection', 'leak-detection fluid that does not corrode', 'rag and water'],
  },
  sewage: {
    task: 'Open drains and plugs',
    items: [
      'waterproof gloves',
      'face shield',
      'waterproof boots',
      'soap and clean water',
      'area kept clear',
    ],
  },
  ducts: {
    task: 'Ducts, masks and smoke',
    items: ['gloves for sheet metal', 'eye protection', 'dust mask', 'lamp', 'steps that stand firm'],
  },
  'put-back': {
    task: 'Release and putting back',
    items: ['eye protection', 'gloves', 'new sealing washers'],
  },
};
