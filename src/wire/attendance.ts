import * as yup from 'yup';

/** A pack's question and the answer taken: words, and no more of them than a pack asks. */
export const choicesField = () =>
  yup
    .mixed<Record<string, string>>()
    .test(
      'choices',
      'choices must be words',
      (v) =>
        v === undefined ||
        (typeof v === 'object' &&
          !Array.isArray(v) &&
          Object.keys(v).length <= 40 &&
          Object.entries(v).every(([key, x]) => typeof x === 'string' && key.length <= 60 && x.length <= 60)),
    )
    .optional();
/** Of several sections of a place the one that a test is for, by its key. */
export const sectionField = () => yup.string().strict(true).max(2000).optional();
/** Permit, under whom the work is done, and who must be present; each only where there is something to say. */
export const attendanceFields = () => ({
  permit: yup.string().strict(true).max(60).optional(),
  doneBy: yup.string().strict(true).oneOf(['licensed', 'owner']).optional(),
  present: yup.string().strict(true).max(200).optional(),
});
