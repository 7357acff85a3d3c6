const rules = new Intl.PluralRules('en')
const numbers = new Intl.NumberFormat('en-GB')

/** The form of a word that goes with a number. */
export const plural = (count: number, one: string, many = `${one}s`) => (rules.select(count) === 'one' ? one : many)

/** A number with its thing: 1 line, 2 lines. The plural adds an s unless it is given. */
export const counted = (count: number, one: string, many = `${one}s`) =>
  `${numbers.format(count)} ${plural(count, one, many)}`
