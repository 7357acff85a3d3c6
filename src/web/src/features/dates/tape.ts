import { useRouter } from 'vue-router'
import type { AlbumEdit, AlbumView, UnitSummary } from '../../api/client'
import { useAct } from '../../shared/act'
import { editAlbum } from '../../shared/edits'
import { unitPlace, type TabKey } from '../../shared/places'

/** A unit as an edit on the tape needs it. */
export type OnTape = Pick<UnitSummary, 'id' | 'revision'>

/** Make, merge, split, leave out and rename on the tape. */
export function useTape(album: () => AlbumView, tab: () => TabKey) {
  const router = useRouter()
  const { act } = useAct(() => album().id)

  const running = new Set<string>()

  /** A click that comes again while the first one is on its way is the same click. */
  async function run(edit: () => AlbumEdit) {
    const click = JSON.stringify({ ...edit(), revision: 0 })
    if (running.has(click)) return undefined
    running.add(click)
    const result = await act(() => editAlbum(album().id, edit())).finally(() => running.delete(click))
    if (result?.unitId) {
      await router.push(unitPlace(album().id, result.unitId, tab()))
    }
    return result
  }

  /** As the album has it now: an edit before this one may have touched it. */
  const of = (unit: OnTape) => {
    const now = album().units.find((u) => u.id === unit.id) ?? unit
    return { unitId: unit.id, revision: Math.max(now.revision, unit.revision) }
  }
  return {
    merge: (unit: OnTape) => run(() => ({ kind: 'mergeUnit', ...of(unit) })),
    split: (unit: OnTape) => run(() => ({ kind: 'splitUnit', ...of(unit) })),
    leaveOut: (unit: OnTape, leftOut: boolean) => run(() => ({ kind: 'leaveUnitOut', ...of(unit), leftOut })),
    rename: (unit: OnTape, name: string) => run(() => ({ kind: 'renameUnit', ...of(unit), name })),
    grow: (count: number, atEnd: boolean) =>
      run(() => ({ kind: 'growAlbum', revision: album().revision, count, atEnd })),
  }
}
