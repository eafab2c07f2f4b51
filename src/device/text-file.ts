/** The bytes of a text file in letters: what is not UTF-8 is taken for Latin, as loggers and spreadsheets write it. @throws Error when it is no text */
export function lettersOf(bytes: ArrayBuffer, otherwise: string): string {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    text = new TextDecoder('windows-1252').decode(bytes);
  }
  if (!text.trim() || text.includes('\u0000')) throw new Error(otherwise);
  return text;
}
