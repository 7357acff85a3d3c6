import { answer, api, Refusal } from '../api/client'
import { useRefresh } from './queries'
import { useNotices } from './notices'

/** The last edit of each album that was begun. */
const turns = new Map<string, Promise<unknown>>()

interface Done {
  done: string
  editId?: string | null
  changes?: string[]
}

/**
 * Carries out something that concerns a whole album: tells what was done with a way to undo it, reads everything anew,
 * and shows both sides when another window was faster. What is known to change little says with `after` what is read
 * anew instead of everything.
 */
export function useAct(albumId: () => string) {
  const notices = useNotices()
  const refresh = useRefresh()

  /**
   * One edit of an album after another: the next is made on what the one before has brought, so `call` reads what it
   * needs (revisions) when it is called.
   */
  function act<T extends Done>(
    call: () => Promise<T>,
    after?: (result: T) => Promise<unknown>,
  ): Promise<T | undefined> {
    const turn = () => once(call, after)
    const next = (turns.get(albumId()) ?? Promise.resolve()).then(turn, turn)
    turns.set(albumId(), next)
    return next
  }

  async function once<T extends Done>(
    call: () => Promise<T>,
    after?: (result: T) => Promise<unknown>,
  ): Promise<T | undefined> {
    try {
      const result = await call()
      await (after ? after(result) : refresh(albumId()))
      const changes = result.changes?.length ? ` ${result.changes.join('; ')}.` : ''
      notices.done(
        `${result.done}.${changes}`.replace('..', '.'),
        result.editId ? () => undo(result.editId!) : undefined,
      )
      return result
    } catch (error) {
      await refresh(albumId())
      if (error instanceof Refusal && error.status === 409) {
        notices.conflict = {
          message: error.message,
          yours: error.yours ?? 'Your last edit',
          theirs: error.theirs ?? [],
          again: () => act(call, after),
        }
      } else {
        notices.refused(error)
      }
      return undefined
    }
  }

  /** Takes one certain edit back, on whatever screen it was made. */
  const undo = (id: string) =>
    act(async () => ({
      ...(await answer(api.POST('/api/edits/{id}/undo', { params: { path: { id } } }))),
      editId: null,
    }))

  const redo = (id: string) =>
    act(async () => ({
      ...(await answer(api.POST('/api/edits/{id}/redo', { params: { path: { id } } }))),
      editId: null,
    }))

  return { act, undo, redo }
}
