import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api, Refusal, type StashAnswer, type StashEdit, type StashEntry } from '../../../api/client'
import { editStash } from '../../../shared/edits'
import { useNotices } from '../../../shared/notices'
import { keys } from '../../../shared/queries'
import { asBytes } from '../../../shared/upload'

export type StashKind = StashEntry['kind']

/** Kinds of item as they stand in lists. */
export const kinds: readonly [StashKind, string][] = [
  ['card', 'Card'],
  ['paper', 'Paper'],
  ['sticker', 'Stickers'],
  ['letters', 'Letters'],
  ['protector', 'Page protectors'],
  ['rings', 'Rings'],
  ['other', 'Other'],
]

export interface StashQuestion {
  text: string
  kind: '' | StashKind
  kit: string
}

/** What is in stock, or a part of it. */
export const useStash = (question: MaybeRefOrGetter<StashQuestion>) =>
  useQuery({
    queryKey: computed(() => [...keys.stash, 'items', { ...toValue(question) }]),
    queryFn: () => {
      const { text, kind, kit } = toValue(question)
      return answer(api.GET('/api/stash', { params: { query: { text, kind, kit } } }))
    },
    placeholderData: (before) => before,
  })

/** The stash as it looks from a week or day. */
export const useUnitStash = (unitId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => [...keys.stash, 'unit', toValue(unitId)]),
    queryFn: () => answer(api.GET('/api/units/{id}/stash', { params: { path: { id: toValue(unitId) } } })),
  })

/** Spreads that would use the stash up. */
export const useUseItUp = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => [...keys.stash, 'use-it-up', toValue(albumId)]),
    queryFn: () => answer(api.GET('/api/albums/{id}/use-it-up', { params: { path: { id: toValue(albumId) } } })),
  })

/** What to buy for an album. */
export const useShoppingList = (albumId: MaybeRefOrGetter<string>) =>
  useQuery({
    queryKey: computed(() => [...keys.stash, 'shopping', toValue(albumId)]),
    queryFn: () => answer(api.GET('/api/albums/{id}/shopping-list', { params: { path: { id: toValue(albumId) } } })),
  })

/** Looks for cards and papers on a photo. */
export const findOnPhoto = (file: File) =>
  answer(api.POST('/api/stash/photo', { params: { query: { name: file.name } }, ...asBytes(file) }))

/** Edits of the stash: each tells what it did, with a way to undo it, and shows both sides of a conflict. */
export function useStashEdits() {
  const notices = useNotices()
  const client = useQueryClient()

  async function act(call: () => Promise<StashAnswer>, canUndo = true): Promise<StashAnswer | undefined> {
    try {
      const result = await call()
      const passed = result.passed.length ? ` ${result.passed.slice(0, 3).join(' ')}` : ''
      notices.done(`${result.done}.${passed}`, canUndo ? () => turn(result.stepId, true) : undefined)
      return result
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) {
        notices.conflict = {
          message: error.message,
          yours: error.yours ?? 'Your last edit',
          theirs: error.theirs ?? [],
          again: () => act(call, canUndo),
        }
      } else {
        notices.refused(error)
      }
      return undefined
    } finally {
      await client.invalidateQueries({ queryKey: keys.stash })
    }
  }

  const turn = (stepId: string, undo: boolean): Promise<StashAnswer | undefined> =>
    act(
      () =>
        answer(
          api.POST(undo ? '/api/stash/steps/{id}/undo' : '/api/stash/steps/{id}/redo', {
            params: { path: { id: stepId } },
          }),
        ),
      false,
    )
  const edit = (change: StashEdit) => act(() => editStash(change))
  const importFile = (file: File) =>
    act(() => answer(api.POST('/api/stash/file', { params: { query: { name: file.name } }, ...asBytes(file) })))

  return { edit, turn, importFile }
}
