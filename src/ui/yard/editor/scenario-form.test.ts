import { shippedScenarios } from '@/core/testing/yard';
import { parseScenario } from '@/core/yard/scenario';
import { criteriaIn, formOf, scenarioOf } from './scenario-form';

const all = shippedScenarios();
test.each(all.map((s) => [s.id, s] as const))(
  '%s goes through the form and comes out as it was',
  (_id, s) => {
    // an empty word is none
    const plain = (x: object) =>
      JSON.parse(
        JSON.stringify({ happenings: [], ...x }, (_k, v: unknown) => (v === '' ? undefined : v)),
      ) as unknown;
    expect(plain(parseScenario(scenarioOf(formOf(s), s)))).toEqual(plain(s));
  },
);
test('what is no JSON is named by where it stands, and nothing is made of it', () => {
  const form = formOf(all[0]!);
  expect(() => scenarioOf({ ...form, hidden: '{' }, all[0]!)).toThrow(/What is hidden: this is not JSON/);
  expect(() => scenarioOf({ ...form, conducts: [{ ...form.conducts[0]!, more: 'x' }] }, all[0]!)).toThrow(
    /Conduct “.*”: this is not JSON/,
  );
});
test('the criteria to choose from are the common ones and its own; while those are being written, the common ones', () => {
  expect(criteriaIn({ common: ['a'], own: '[{"id":"b"}]' })).toEqual(['a', 'b']);
  expect(criteriaIn({ common: ['a'], own: '[{"id":' })).toEqual(['a']);
  expect(criteriaIn({ common: ['a'], own: '{"id":"b"}' })).toEqual(['a']);
});
