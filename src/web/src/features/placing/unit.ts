import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import { answer, api, Refusal, type EditAnswer, type UnitEdit, type UnitView } from '../../api/client'
import { useNotices } from '../../shared/notices'
import { keys } from '../../shared/queries'

/** An edit of any kind without the revision, which is added when it is sent. */
export type Edit = UnitEdit extends infer Kind ? (Kind extends UnitEdit ? Omit<Kind, 'revision'> : never) : never

/** Revisions only grow: an older answer that comes in late is dropped. */
export function newer(old: unknown, fresh: unknown): unknown {
  const [before, after] = [old as UnitView | undefined, fresh as UnitView]
  return before && before.id === after.id && before.revision > after.revision ? before : after
}

/** The open week: its view, and edits on the revision that is on the screen. */
export function useUnit(unitId: MaybeRefOrGetter<string>) {
  const client = useQueryClient()
  const notices = useNotices()
  const query = useQuery({
    queryKey: computed(() => keys.unit(toValue(unitId))),
    queryFn: () => answer(api.GET('/api/units/{id}', { params: { path: { id: toValue(unitId) } } })),
    enabled: computed(() => toValue(unitId) !== ''),
    structuralSharing: newer,
  })

  // Edits go one after another, each on the revision that the one before brought.
  let queue: Promise<unknown> = Promise.resolve()

  type Step = (id: string, revision: number) => Promise<EditAnswer>

  /** Does a step on the newest revision; `back` takes it back from the message of what was done. */
  async function run(step: Step, back?: () => unknown): Promise<EditAnswer | undefined> {
    const id = toValue(unitId)
    const turn = async () => {
      const unit = client.getQueryData<UnitView>(keys.unit(id))
      if (!unit) return undefined
      // A reading that began before this edit must not come in after it.
      await client.cancelQueries({ queryKey: keys.unit(id) })
      try {
        const result = await step(id, unit.revision)
        take(id, result, back)
        return result
      } catch (error) {
        if (error instanceof Refusal && error.status === 409) {
          await client.refetchQueries({ queryKey: keys.unit(id) })
          notices.conflict = {
            message: error.message,
            yours: error.yours ?? 'Your last edit',
            theirs: error.theirs ?? [],
            again: () => run(step, back),
          }
        } else {
          notices.refused(error)
          if (error instanceof Refusal && error.mayBeDone) await client.refetchQueries({ queryKey: keys.unit(id) })
        }
        return undefined
      }
    }
    const next = queue.then(turn, turn)
    queue = next
    return next
  }

  function take(id: string, result: EditAnswer, back?: () => unknown) {
    client.setQueryData(keys.unit(result.unit.id), result.unit)
    void client.invalidateQueries({ queryKey: keys.album(result.unit.albumId) })
    void client.invalidateQueries({ queryKey: ['of', result.unit.albumId] })
    void client.invalidateQueries({ queryKey: ['photo'] })
    // A leaf's other face belongs to a neighbour, which may have changed with it.
    void client.invalidateQueries({ queryKey: ['unit'], predicate: (q) => q.queryKey[1] !== id })
    notices.done(`${result.done}.`, back)
  }

  const edit = (change: Edit) =>
    run(
      (id, revision) =>
        answer(api.POST('/api/units/{id}/edits', { params: { path: { id } }, body: { revision, ...change } })),
      () => undo(),
    )
  const undo = () =>
    run((id, revision) => answer(api.POST('/api/units/{id}/undo', { params: { path: { id } }, body: { revision } })))
  const redo = () =>
    run((id, revision) => answer(api.POST('/api/units/{id}/redo', { params: { path: { id } }, body: { revision } })))

  return { unit: query.data, error: query.error, edit, undo, redo }
}

export type UnitDesk = ReturnType<typeof useUnit>
