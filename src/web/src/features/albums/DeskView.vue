<script setup lang="ts">
import { counted } from '../../shared/words'
import { computed, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import AlbumTop from '../../shared/AlbumTop.vue'
import ShortcutSheet from '../../shared/ShortcutSheet.vue'
import { useShortcuts } from '../../shared/shortcuts'
import CountTab from '../counting/CountTab.vue'
import GatherTab from '../photos/GatherTab.vue'
import PlaceTab from '../placing/PlaceTab.vue'
import { useUnit } from '../placing/unit'
import PrintTab from '../printing/PrintTab.vue'
import TapeMeasure from '../dates/TapeMeasure.vue'
import UnitMenu from '../dates/UnitMenu.vue'
import TellTab from '../words/TellTab.vue'
import AlbumSetup from '../binder/AlbumSetup.vue'
import { useAlbum } from './queries'

const props = defineProps<{ albumId: string; unitId?: string; tab?: string }>()
const router = useRouter()
const { data: album, error: albumError } = useAlbum(() => props.albumId)
const { unit, error: unitError, edit, undo, redo } = useUnit(() => props.unitId ?? '')
const shortcuts = ref(false)
const setup = ref(false)
const place = ref<InstanceType<typeof PlaceTab>>()
const tab = computed(() => props.tab || 'place')

// Without a part of the album in the address: the one of today, else the first with photos that are not placed yet,
// else the first.
watchEffect(() => {
  const units = album.value?.units
  if (!units?.length || props.unitId) return
  const { today } = album.value!
  const open =
    units.find((u) => u.firstDay <= today && u.lastDay >= today) ??
    units.find((u) => u.photos > 0 && u.piecesPlaced < u.pockets) ??
    units[0]!
  void router.replace({ name: 'desk', params: { albumId: props.albumId, unitId: open.id, tab: tab.value } })
})

/** One and many of what a tab misses. */
type Things = readonly [one: string, many: string]

const tabs = computed(() => {
  const c = unit.value?.counts
  return [
    {
      key: 'gather',
      name: 'Gather',
      missing: album.value?.photosWithoutUnit ?? 0,
      of: ['photo that belongs nowhere yet', 'photos that belong nowhere yet'] as Things,
    },
    {
      key: 'tell',
      name: 'Tell',
      missing: c ? c.cardsUnwritten + c.cardsOver : 0,
      of: ['card without words or with too many', 'cards without words or with too many'] as Things,
    },
    {
      key: 'count',
      name: 'Count',
      missing: c?.piecesShort ?? 0,
      of: ['piece beyond its pockets', 'pieces beyond its pockets'] as Things,
    },
    {
      key: 'place',
      name: 'Place',
      missing: c?.openPockets ?? 0,
      of: ['empty pocket', 'empty pockets'] as Things,
    },
    {
      key: 'print',
      name: 'Print',
      missing: c?.warnings ?? 0,
      of: ['warning before printing', 'warnings before printing'] as Things,
    },
  ]
})

const go = (unitId: string | null | undefined, to = tab.value) => {
  if (unitId) void router.push({ name: 'desk', params: { albumId: props.albumId, unitId, tab: to } })
}
const turn = (step: number) => go(step < 0 ? unit.value?.previousUnitId : unit.value?.nextUnitId)

/** Undoing the making of a week or a day takes it away; its neighbour comes in its place. */
async function step(action: typeof undo) {
  const answer = await action()
  if (answer && answer.unit.id !== props.unitId) go(answer.unit.id)
}

useShortcuts({
  1: () => go(props.unitId, 'gather'),
  2: () => go(props.unitId, 'tell'),
  3: () => go(props.unitId, 'count'),
  4: () => go(props.unitId, 'place'),
  5: () => go(props.unitId, 'print'),
  '[': () => turn(-1),
  ']': () => turn(1),
  ' ': (event) => {
    if (tab.value === 'place' && !(event.target instanceof HTMLButtonElement)) place.value?.turn(1)
    else (event.target as HTMLElement).click?.()
  },
  'Shift+ ': () => tab.value === 'place' && place.value?.turn(-1),
  f: () => void place.value?.fill(),
  t: () => place.value?.toggleSize(),
  '?': () => (shortcuts.value = true),
  'Ctrl+z': () => void step(undo),
  'Ctrl+Shift+z': () => void step(redo),
  'Ctrl+y': () => void step(redo),
})
</script>

<template>
  <div class="desk">
    <AlbumTop
      :name="album?.name"
      :undo="unit?.undo"
      :redo="unit?.redo"
      where="here"
      @back="step(undo)"
      @again="step(redo)"
      @keys="shortcuts = true"
    >
      <button type="button" class="btn btn-sm btn-outline-dark" @click="setup = true">Protectors</button>
      <RouterLink class="btn btn-sm btn-outline-dark" :to="{ name: 'note', params: { albumId } }"
        >Quick note</RouterLink
      >
      <RouterLink class="btn btn-sm btn-outline-dark" :to="{ name: 'room', params: { albumId, room: 'overview' } }"
        >Overview</RouterLink
      >
    </AlbumTop>
    <TapeMeasure v-if="album" :album="album" :current="unitId ?? ''" :tab="tab" />
    <nav class="tabs" aria-label="Steps of the work">
      <RouterLink
        v-for="t in tabs"
        :key="t.key"
        :to="{ name: 'desk', params: { albumId, unitId, tab: t.key } }"
        class="index-tab"
        :class="{ on: t.key === tab }"
        :aria-current="t.key === tab ? 'page' : undefined"
        :aria-label="t.missing ? `${t.name}: ${counted(t.missing, ...t.of)}` : t.name"
        :title="t.missing ? counted(t.missing, ...t.of) : undefined"
      >
        {{ t.name }} <span v-if="t.missing" class="missing" aria-hidden="true">{{ t.missing }}</span>
      </RouterLink>
      <UnitMenu v-if="unit && album" :unit="unit" :album="album" />
    </nav>
    <main class="desk-body">
      <p v-if="albumError || unitError" class="warning-chip m-4" role="alert">
        {{ (albumError ?? unitError)?.message }}
      </p>
      <template v-if="album && unit">
        <GatherTab v-if="tab === 'gather'" :unit="unit" :album="album" :edit="edit" />
        <TellTab v-else-if="tab === 'tell'" :unit="unit" :edit="edit" />
        <CountTab v-else-if="tab === 'count'" :key="unit.id" :unit="unit" :album="album" :edit="edit" />
        <PrintTab v-else-if="tab === 'print'" :key="unit.id" :unit="unit" :album="album" />
        <PlaceTab v-else ref="place" :unit="unit" :album="album" :edit="edit" @turn="turn" />
      </template>
    </main>
    <ShortcutSheet v-model="shortcuts" />
    <AlbumSetup v-if="album" v-model="setup" :album="album" />
  </div>
</template>
