/** A number with its thing: 1 line, 2 lines. The plural adds an s unless it is given. */
export const counted = (count: number, one: string, many = `${one}s`) =>
  `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`
