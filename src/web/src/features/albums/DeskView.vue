<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { answer, api } from '../../api/client'
import { useNotices } from '../../shared/notices'
import ShortcutSheet from '../../shared/ShortcutSheet.vue'
import { useShortcuts } from '../../shared/shortcuts'
import GatherTab from '../gather/GatherTab.vue'
import PlaceTab from '../place/PlaceTab.vue'
import { useUnit } from '../place/unit'
import PrintTab from '../print/PrintTab.vue'
import TapeMeasure from '../tape/TapeMeasure.vue'
import TellTab from '../tell/TellTab.vue'
import AlbumSetup from './AlbumSetup.vue'
import { useAlbum, useRefresh } from './queries'

const props = defineProps<{ albumId: string; unitId?: string; tab?: string }>()
const router = useRouter()
const notices = useNotices()
const refresh = useRefresh()
const { data: album, error: albumError } = useAlbum(() => props.albumId)
const { unit, error: unitError, edit, undo, redo } = useUnit(() => props.unitId ?? '')
const shortcuts = ref(false)
const setup = ref(false)
const place = ref<InstanceType<typeof PlaceTab>>()
const tab = computed(() => props.tab || 'place')

// Without a week in the address: this week, else the first with photos that are not placed yet, else the first.
watchEffect(() => {
  const units = album.value?.units
  if (!units?.length || props.unitId) return
  const today = new Date().toISOString().slice(0, 10)
  const open =
    units.find((u) => u.firstDay <= today && u.lastDay >= today) ??
    units.find((u) => u.photos > 0 && u.piecesPlaced < u.pockets) ??
    units[0]!
  void router.replace({ name: 'desk', params: { albumId: props.albumId, unitId: open.id, tab: tab.value } })
})

const tabs = computed(() => {
  const c = unit.value?.counts
  return [
    { key: 'gather', name: 'Gather', missing: album.value?.photosWithoutUnit ?? 0, of: 'photos without a week' },
    {
      key: 'tell',
      name: 'Tell',
      missing: c ? c.cardsUnwritten + c.cardsOver : 0,
      of: 'cards without words or with too many',
    },
    { key: 'place', name: 'Place', missing: c?.openPockets ?? 0, of: 'empty pockets' },
    { key: 'print', name: 'Print', missing: c?.warnings ?? 0, of: 'warnings before printing' },
  ]
})

const go = (unitId: string | null | undefined, to = tab.value) => {
  if (unitId) void router.push({ name: 'desk', params: { albumId: props.albumId, unitId, tab: to } })
}
const turn = (step: number) => go(step < 0 ? unit.value?.previousUnitId : unit.value?.nextUnitId)

async function addWeeks() {
  try {
    await answer(api.POST('/api/albums/{id}/weeks', { params: { path: { id: props.albumId } }, body: { weeks: 4 } }))
    await refresh(props.albumId)
    notices.done('Four weeks were added at the end.')
  } catch (error) {
    notices.refused(error)
  }
}

useShortcuts({
  1: () => go(props.unitId, 'gather'),
  2: () => go(props.unitId, 'tell'),
  3: () => go(props.unitId, 'place'),
  4: () => go(props.unitId, 'print'),
  '[': () => turn(-1),
  ']': () => turn(1),
  ' ': (event) => {
    if (tab.value === 'place' && !(event.target instanceof HTMLButtonElement)) turn(1)
    else (event.target as HTMLElement).click?.()
  },
  'Shift+ ': () => tab.value === 'place' && turn(-1),
  f: () => void place.value?.fill(),
  t: () => place.value?.toggleSize(),
  '?': () => (shortcuts.value = true),
  'Ctrl+z': () => void undo(),
  'Ctrl+Shift+z': () => void redo(),
  'Ctrl+y': () => void redo(),
})
</script>

<template>
  <div class="desk">
    <header class="top">
      <RouterLink to="/" class="home" aria-label="Back to the shelf"
        ><img src="/favicon.svg" alt="" width="28" height="28"
      /></RouterLink>
      <h1 class="album-name">{{ album?.name ?? 'Album' }}</h1>
      <span class="ms-auto"></span>
      <button
        type="button"
        class="btn btn-sm btn-outline-dark"
        :disabled="!unit?.undo"
        :title="unit?.undo ? `Undo: ${unit.undo}` : 'Nothing to undo in this week'"
        data-testid="undo"
        @click="undo()"
      >
        ↶ Undo
      </button>
      <button
        type="button"
        class="btn btn-sm btn-outline-dark"
        :disabled="!unit?.redo"
        :title="unit?.redo ? `Redo: ${unit.redo}` : 'Nothing to redo in this week'"
        data-testid="redo"
        @click="redo()"
      >
        ↷ Redo
      </button>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="setup = true">Protectors</button>
      <button type="button" class="btn btn-sm btn-outline-dark" @click="addWeeks">+ 4 weeks</button>
      <button
        type="button"
        class="btn btn-sm btn-outline-dark"
        aria-label="Keyboard shortcuts"
        @click="shortcuts = true"
      >
        ?
      </button>
    </header>
    <TapeMeasure v-if="album" :album-id="albumId" :units="album.units" :current="unitId ?? ''" :tab="tab" />
    <nav class="tabs" aria-label="Steps of the work">
      <RouterLink
        v-for="t in tabs"
        :key="t.key"
        :to="{ name: 'desk', params: { albumId, unitId, tab: t.key } }"
        class="index-tab"
        :class="{ on: t.key === tab }"
        :aria-current="t.key === tab ? 'page' : undefined"
        :aria-label="t.missing ? `${t.name}: ${t.missing} ${t.of}` : t.name"
        :title="t.missing ? `${t.missing} ${t.of}` : undefined"
      >
        {{ t.name }} <span v-if="t.missing" class="missing" aria-hidden="true">{{ t.missing }}</span>
      </RouterLink>
      <span v-if="unit" class="week-words">week {{ unit.number }} · {{ unit.label }}</span>
    </nav>
    <main class="desk-body">
      <p v-if="albumError || unitError" class="warning-chip m-4" role="alert">
        {{ (albumError ?? unitError)?.message }}
      </p>
      <template v-if="album && unit">
        <GatherTab v-if="tab === 'gather'" :unit="unit" :album="album" />
        <TellTab v-else-if="tab === 'tell'" :unit="unit" :edit="edit" />
        <PrintTab v-else-if="tab === 'print'" :key="unit.id" :unit="unit" :album="album" />
        <PlaceTab v-else ref="place" :unit="unit" :album="album" :edit="edit" @turn="turn" />
      </template>
    </main>
    <ShortcutSheet v-model="shortcuts" />
    <AlbumSetup v-if="album" v-model="setup" :album="album" />
  </div>
</template>

<style scoped>
.desk {
  display: flex;
  flex-direction: column;
  height: 100vh;
}
.top {
  display: flex;
  align-items: center;
  gap: 0.5rem;
  padding: 0.35rem 0.9rem;
  background: var(--card);
}
.top .btn {
  flex: none;
  white-space: nowrap;
}
.album-name {
  margin: 0 0 0 0.3rem;
  font-size: 1.2rem;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tabs {
  display: flex;
  align-items: flex-end;
  gap: 0.3rem;
  padding: 0 0.9rem;
  background: #e9e1d1;
  border-bottom: 1px solid var(--line);
}
.index-tab {
  padding: 0.35rem 1.1rem 0.4rem;
  border: 1px solid #b9ac94;
  border-top: 0;
  border-radius: 0 0 0.6rem 0.6rem;
  background: #f4ecdc;
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
  margin-bottom: 0.35rem;
}
.index-tab.on {
  background: var(--zest);
  border-color: var(--zest);
  color: #fff;
}
.missing {
  display: inline-block;
  min-width: 1.5em;
  padding: 0 0.4em;
  border-radius: 1em;
  background: var(--ink);
  color: #fff;
  font-size: 0.78rem;
  text-align: center;
}
.week-words {
  margin-left: auto;
  padding-bottom: 0.5rem;
  color: #4b443c;
}
.desk-body {
  display: flex;
  flex: 1;
  min-height: 0;
}
@media (max-width: 800px) {
  .top,
  .tabs {
    flex-wrap: wrap;
  }
}
</style>
