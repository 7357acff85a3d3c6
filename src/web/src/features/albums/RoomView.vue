<script setup lang="ts">
import { computed, ref } from 'vue'
import { useAct } from '../../shared/act'
import AlbumTop from '../../shared/AlbumTop.vue'
import ShortcutSheet from '../../shared/ShortcutSheet.vue'
import { useShortcuts } from '../../shared/shortcuts'
import { useAlbum, useOverview } from './queries'
import TapeMeasure from '../dates/TapeMeasure.vue'
import CamerasRoom from '../dates/CamerasRoom.vue'
import KeepsakesRoom from '../placing/KeepsakesRoom.vue'
import OverviewRoom from './OverviewRoom.vue'
import PhotosRoom from '../photos/PhotosRoom.vue'
import { rooms } from './rooms'
import SeriesRoom from '../photos/SeriesRoom.vue'
import DesignsRoom from '../binder/DesignsRoom.vue'
import FormulasRoom from '../counting/FormulasRoom.vue'
import LeavesRoom from '../binder/LeavesRoom.vue'
import LettersRoom from '../words/LettersRoom.vue'
import StylesRoom from '../words/StylesRoom.vue'
import WordsRoom from '../words/WordsRoom.vue'

const props = defineProps<{ albumId: string; room: string }>()
const { data: album, error } = useAlbum(() => props.albumId)
const { data: overview } = useOverview(() => props.albumId)
const { undo, redo } = useAct(() => props.albumId)
const shortcuts = ref(false)
const counts = computed<Record<string, number>>(() => ({ photos: overview.value?.noDate ?? 0 }))

const back = () => {
  if (overview.value?.undoEditId) void undo(overview.value.undoEditId)
}
const again = () => {
  if (overview.value?.redoEditId) void redo(overview.value.redoEditId)
}
useShortcuts({
  '?': () => (shortcuts.value = true),
  'Ctrl+z': back,
  'Ctrl+Shift+z': again,
  'Ctrl+y': again,
})
</script>

<template>
  <div class="desk">
    <AlbumTop
      :name="album?.name"
      :undo="overview?.undo"
      :redo="overview?.redo"
      where="in this album"
      @back="back"
      @again="again"
      @keys="shortcuts = true"
    />
    <TapeMeasure v-if="album" :album="album" current="" tab="gather" />
    <nav class="tabs many" aria-label="Rooms of the album">
      <RouterLink
        v-for="r in rooms"
        :key="r.key"
        :to="{ name: 'room', params: { albumId, room: r.key } }"
        class="index-tab"
        :class="{ on: r.key === room }"
        :aria-current="r.key === room ? 'page' : undefined"
        :aria-label="counts[r.key] ? `${r.name}: ${counts[r.key]} without a date` : r.name"
      >
        {{ r.name }} <span v-if="counts[r.key]" class="missing" aria-hidden="true">{{ counts[r.key] }}</span>
      </RouterLink>
    </nav>
    <main class="desk-body">
      <p v-if="error" class="warning-chip m-4" role="alert">{{ error.message }}</p>
      <template v-if="album">
        <OverviewRoom v-if="room === 'overview'" :album="album" />
        <PhotosRoom v-else-if="room === 'photos'" :album="album" />
        <CamerasRoom v-else-if="room === 'cameras'" :album="album" />
        <KeepsakesRoom v-else-if="room === 'keepsakes'" :album="album" />
        <LeavesRoom v-else-if="room === 'leaves'" :album="album" />
        <DesignsRoom v-else-if="room === 'designs'" :album="album" />
        <FormulasRoom v-else-if="room === 'formulas'" :album="album" />
        <WordsRoom v-else-if="room === 'words'" :album="album" />
        <StylesRoom v-else-if="room === 'styles'" :album="album" />
        <LettersRoom v-else-if="room === 'letters'" :album="album" />
        <SeriesRoom v-else :album="album" />
      </template>
    </main>
    <ShortcutSheet v-model="shortcuts" />
  </div>
</template>
