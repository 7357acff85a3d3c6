<script setup lang="ts">
import { useSessionStorage } from '@vueuse/core'
import { computed, ref, watch, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { useAct } from '../../shared/act'
import AlbumTop from '../../shared/AlbumTop.vue'
import { nearestScope, place, readScope, roomOf, firstRoom, tabOf, tabs, type TabKey } from '../../shared/places'
import ShortcutSheet from '../../shared/ShortcutSheet.vue'
import { useShortcuts } from '../../shared/shortcuts'
import CompanyBar from '../household/CompanyBar.vue'
import TapeMeasure from '../dates/TapeMeasure.vue'
import { useUnit } from '../placing/unit'
import AlbumName from './AlbumName.vue'
import AlbumRoom from './AlbumRoom.vue'
import AlbumTabs from './AlbumTabs.vue'
import { useAlbum, useOverview } from './queries'
import QuickSwitcher from './QuickSwitcher.vue'
import DeskTour from './DeskTour.vue'
import { useTour } from './tour'

const props = defineProps<{ albumId: string; scope?: string; tab?: string; room?: string }>()
const router = useRouter()
const { data: album, error: albumError, isFetching } = useAlbum(() => props.albumId)
const { data: overview } = useOverview(() => props.albumId)
const shortcuts = ref(false)
const naming = ref(false)
const tour = useTour()
const finding = ref(false)
const shown = ref<InstanceType<typeof AlbumRoom>>()

/** The week or day each album was last looked at, so that a room of the whole album leads back to it. */
const lastUnits = useSessionStorage<Record<string, string>>('zesty.lastUnits', {})

/** The one of today, else the first with photos that are not placed yet, else the first. */
const usualUnit = computed(() => {
  const units = album.value?.units ?? []
  const today = album.value?.today ?? ''
  return (
    units.find((u) => u.id === lastUnits.value[props.albumId]) ??
    units.find((u) => u.firstDay <= today && u.lastDay >= today) ??
    units.find((u) => u.photos > 0 && u.piecesPlaced < u.pockets) ??
    units[0]
  )?.id
})

const tab = computed(() => tabOf(props.tab || 'place'))
const scope = computed(() => readScope(props.scope))
const unitId = computed(() =>
  scope.value && scope.value.kind !== 'album' ? scope.value.from : (usualUnit.value ?? ''),
)
const room = computed(() => {
  const named = roomOf(tab.value, props.room)
  return named && scope.value && named.scopes.includes(scope.value.kind) ? named : undefined
})
const { unit, error: unitError, edit, undo, redo } = useUnit(() => unitId.value)

// An address that names too little, or a week that is gone, becomes the nearest one that can be shown.
watchEffect(() => {
  const units = album.value?.units
  if (!units?.length || isFetching.value) return
  const known = (id: string) => units.some((u) => u.id === id)
  const asked = scope.value
  const usual = { kind: 'unit', from: usualUnit.value! } as const
  const there =
    asked && (asked.kind === 'album' || (known(asked.from) && (asked.kind === 'unit' || known(asked.until))))
      ? asked
      : usual
  if (there === asked && room.value && props.tab) return
  const named = roomOf(tab.value, props.room)
  const to = nearestScope(named ? [named] : tab.value.rooms, there, usual.from)
  void router.replace(place(props.albumId, to, tab.value.key, (named ?? firstRoom(tab.value, to.kind)).key))
})

watch(
  scope,
  (s) => {
    if (s && s.kind !== 'album') lastUnits.value = { ...lastUnits.value, [props.albumId]: s.from }
  },
  { immediate: true },
)

const inAlbum = computed(() => scope.value?.kind === 'album')
const ofAlbum = useAct(() => props.albumId)

function open(key: TabKey) {
  const to = nearestScope(tabOf(key).rooms, scope.value ?? { kind: 'album' }, unitId.value)
  void router.push(place(props.albumId, to, key))
}

const go = (to: string | null | undefined) => {
  if (to) void router.push(place(props.albumId, { kind: 'unit', from: to }, tab.value.key))
}
const turn = (step: number) => go(step < 0 ? unit.value?.previousUnitId : unit.value?.nextUnitId)

/** Undoing the making of a week or a day takes it away; its neighbour comes in its place. */
async function stepUnit(action: typeof undo) {
  const answer = await action()
  if (answer && answer.unit.id !== unitId.value) go(answer.unit.id)
}

/** Undo and redo are of what is looked at: the week or day, or the album. */
const steps = computed(() =>
  inAlbum.value
    ? { undo: overview.value?.undo, redo: overview.value?.redo, where: 'in this album' }
    : { undo: unit.value?.undo, redo: unit.value?.redo, where: 'here' },
)
function back() {
  if (!inAlbum.value) void stepUnit(undo)
  else if (overview.value?.undoEditId) void ofAlbum.undo(overview.value.undoEditId)
}
function again() {
  if (!inAlbum.value) void stepUnit(redo)
  else if (overview.value?.redoEditId) void ofAlbum.redo(overview.value.redoEditId)
}

/** What can be done from the quick switcher. */
const actions = computed(() => [
  ...(steps.value.undo ? [{ name: `Undo: ${steps.value.undo}`, run: back }] : []),
  ...(steps.value.redo ? [{ name: `Redo: ${steps.value.redo}`, run: again }] : []),
  { name: 'Quick note', run: () => router.push({ name: 'note', params: { albumId: props.albumId } }) },
  { name: 'Rename the album', run: () => (naming.value = true) },
  { name: 'Take the tour', run: () => tour.start() },
  { name: 'Keyboard shortcuts', run: () => (shortcuts.value = true) },
  { name: 'Go to the shelf', run: () => router.push({ name: 'shelf' }) },
])

const placing = () => tab.value.key === 'place'
useShortcuts({
  ...Object.fromEntries(tabs.map((t, i) => [String(i + 1), () => open(t.key)])),
  '[': () => turn(-1),
  ']': () => turn(1),
  ' ': (event) => {
    if (placing() && !(event.target instanceof HTMLButtonElement)) shown.value?.turn(1)
    else (event.target as HTMLElement).click?.()
  },
  'Shift+ ': () => placing() && shown.value?.turn(-1),
  f: () => placing() && shown.value?.fill(),
  t: () => placing() && shown.value?.toggleSize(),
  '?': () => (shortcuts.value = true),
  'Ctrl+k': () => (finding.value = true),
  'Ctrl+z': back,
  'Ctrl+Shift+z': again,
  'Ctrl+y': again,
})
</script>

<template>
  <div class="desk">
    <AlbumTop
      :name="album?.name"
      :undo="steps.undo"
      :redo="steps.redo"
      :where="steps.where"
      @rename="naming = true"
      @back="back"
      @again="again"
      @keys="shortcuts = true"
    >
      <RouterLink class="btn btn-sm btn-outline-dark" :to="{ name: 'note', params: { albumId } }" title="Quick note"
        ><span aria-hidden="true">✎</span><span class="roomy"> Quick note</span></RouterLink
      >
      <CompanyBar v-if="album" :album="album" :unit-id="inAlbum ? '' : unitId" />
      <BButton size="sm" variant="outline-dark" title="Find" @click="finding = true"
        ><span aria-hidden="true">⌕</span><span class="roomy"> Find</span>
        <span class="kbd-key ms-1 roomy-only" aria-hidden="true">Ctrl K</span></BButton
      >
    </AlbumTop>
    <TapeMeasure v-if="album" :album="album" :current="unitId" :scope="scope" :tab="tab.key" />
    <AlbumTabs
      v-if="album && scope"
      :album="album"
      :unit="unit"
      :unit-id="unitId"
      :scope="scope"
      :tab="tab"
      :room="room"
      :undated="overview?.noDate ?? 0"
    />
    <main class="desk-body">
      <p v-if="albumError || (!inAlbum && unitError)" class="warning-chip m-4" role="alert">
        {{ (albumError ?? unitError)?.message }}
      </p>
      <AlbumRoom
        v-else-if="album && scope && room"
        ref="shown"
        :album="album"
        :unit="unit"
        :scope="scope"
        :tab="tab"
        :room="room"
        :edit="edit"
        @turn="turn"
      />
    </main>
    <ShortcutSheet v-model="shortcuts" @tour="tour.start()" />
    <DeskTour v-if="album && scope" />
    <QuickSwitcher
      v-if="album && scope"
      v-model="finding"
      :album="album"
      :scope="scope"
      :unit-id="unitId"
      :actions="actions"
    />
    <AlbumName v-if="album" v-model="naming" :album="album" />
  </div>
</template>
