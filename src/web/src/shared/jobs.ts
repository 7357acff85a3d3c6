import { promiseTimeout } from '@vueuse/core'

/** Asks how far a job is until it has ended, and tells each answer. */
export async function untilEnded<T extends { state: string }>(
  begun: T,
  read: () => Promise<T>,
  tell: (now: T) => void,
): Promise<T> {
  let now = begun
  tell(now)
  while (now.state === 'waiting' || now.state === 'running') {
    await promiseTimeout(150)
    now = await read()
    tell(now)
  }
  return now
}
