import { useRouter } from 'vue-router'
import { answer, api, type AlbumView, type TapeAnswer, type UnitSummary } from '../../api/client'
import { useAct } from '../../shared/act'

/** A unit as an edit on the tape needs it. */
export type OnTape = Pick<UnitSummary, 'id' | 'revision'>

/** Make, merge, split, leave out and rename on the tape. */
export function useTape(album: () => AlbumView, tab: () => string) {
  const router = useRouter()
  const { act } = useAct(() => album().id)

  async function run(call: () => Promise<TapeAnswer>) {
    const result = await act(call)
    if (result?.unitId) {
      await router.push({ name: 'desk', params: { albumId: album().id, unitId: result.unitId, tab: tab() } })
    }
    return result
  }

  const path = (unit: OnTape) => ({ params: { path: { id: unit.id } } })
  return {
    merge: (unit: OnTape) =>
      run(() => answer(api.POST('/api/units/{id}/merge', { ...path(unit), body: { revision: unit.revision } }))),
    split: (unit: OnTape) =>
      run(() => answer(api.POST('/api/units/{id}/split', { ...path(unit), body: { revision: unit.revision } }))),
    leaveOut: (unit: OnTape, leftOut: boolean) =>
      run(() =>
        answer(api.POST('/api/units/{id}/leave-out', { ...path(unit), body: { revision: unit.revision, leftOut } })),
      ),
    rename: (unit: OnTape, name: string) =>
      run(() => answer(api.POST('/api/units/{id}/name', { ...path(unit), body: { revision: unit.revision, name } }))),
    grow: (count: number, atEnd: boolean) =>
      run(() =>
        answer(api.POST('/api/albums/{id}/grow', { params: { path: { id: album().id } }, body: { count, atEnd } })),
      ),
  }
}
