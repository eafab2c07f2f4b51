/** @jest-environment jsdom */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { readCodeFile } from '@/device/code-reader';
import { Looking } from './looking';

jest.mock('@/device/code-reader');

/** Answers that the test gives when it wants. */
function later<T>() {
  let give!: (value: T) => void;
  let refuse!: (why: Error) => void;
  const answer = new Promise<T>((resolve, reject) => ([give, refuse] = [resolve, reject]));
  return { answer, give, refuse };
}
let camera = later<MediaStream>();
const onCode = jest.fn((_: unknown, text: string) => (text === 'G-02' ? '' : `${text} cannot judge here`));
const onBack = jest.fn();
const reading = jest.mocked(readCodeFile);
const photo = () =>
  fireEvent.change(screen.getByLabelText('Or a photo of it'), {
    target: { files: [new File(['x'], 'photo.png')] },
  });
const said = () => screen.getByRole('status').textContent;

beforeEach(() => {
  jest.clearAllMocks();
  camera = later();
  Object.defineProperty(navigator, 'mediaDevices', {
    configurable: true,
    value: { getUserMedia: () => camera.answer },
  });
  render(<Looking label="Scan" onCode={onCode} onBack={onBack} />);
});

test('without a camera it says what to do instead', async () => {
  expect(said()).toBe('');
  await act(async () => camera.refuse(new Error('denied')));
  expect(said()).toMatch(/take a photo of the code instead/);
});
test('what was said of a photo stands, though it is found afterwards that there is no camera', async () => {
  reading.mockResolvedValueOnce('N-60');
  await act(async () => photo());
  expect(said()).toBe('N-60 cannot judge here');
  await act(async () => camera.refuse(new Error('denied')));
  expect(said()).toBe('N-60 cannot judge here');
  expect(onBack).not.toHaveBeenCalled();
});
test('of two photos the newer one counts, whichever is read first', async () => {
  const [first, second] = [later<string | null>(), later<string | null>()];
  reading.mockReturnValueOnce(first.answer).mockReturnValueOnce(second.answer);
  photo();
  expect(said()).toBe('Looking for a code …');
  photo();
  await act(async () => second.give('N-60'));
  await act(async () => first.give('G-02'));
  expect(said()).toBe('N-60 cannot judge here');
  expect(onCode).toHaveBeenCalledTimes(1);
});
test('a photo without a code, and a file that is none, say so; the right code goes back', async () => {
  reading.mockResolvedValueOnce(null);
  await act(async () => photo());
  expect(said()).toMatch(/No code could be read/);
  reading.mockRejectedValueOnce(new Error('That file is no picture.'));
  await act(async () => photo());
  expect(said()).toBe('That file is no picture.');
  reading.mockResolvedValueOnce('G-02');
  await act(async () => photo());
  expect(onBack).toHaveBeenCalledTimes(1);
});
