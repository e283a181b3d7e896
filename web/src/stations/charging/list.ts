import { readNumber } from '../../ui/written'

/** Numbers with spaces, lines, semicolons or commas with a space between; decimal commas stay with their number. NaN: not understood. */
export function numbersOf(text: string): number[] {
  return text
    .trim()
    .split(/[;\s]+|,\s+/)
    .filter((part) => part !== '')
    .map((part) => {
      const read = readNumber(part)
      // One that can be read in two ways is not guessed at.
      return read && read.other === null && read.rest.trim() === '' ? read.value : NaN
    })
}

/** The last field of each line that has a number in it: between semicolons or tabs where there are any, else between commas. */
export function lastFields(csv: string): string {
  return csv
    .split(/\r?\n/)
    .filter((line) => /\d/.test(line))
    .map((line) =>
      line
        .split(/[;\t]/.test(line) ? /[;\t]/ : ',')
        .at(-1)!
        .trim(),
    )
    .join('\n')
}
