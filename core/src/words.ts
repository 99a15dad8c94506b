/**
 * A count with its word.
 *
 * @param more the word for several, where it takes more than an s
 * @example
 * counted(1, 'rep') // '1 rep'
 * counted(2, 'touch', 'touches') // '2 touches'
 */
export const counted = (count: number, word: string, more = `${word}s`): string =>
  `${count} ${count === 1 ? word : more}`;
