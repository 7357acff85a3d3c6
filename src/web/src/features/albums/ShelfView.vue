<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type AlbumSummary } from '../../api/client'
import ThemeSwitch from '../../shared/ThemeSwitch.vue'
import { useNotices } from '../../shared/notices'
import AlbumTile from './AlbumTile.vue'
import DamagedTile from './DamagedTile.vue'
import NewAlbumDialog from './NewAlbumDialog.vue'
import { keys } from '../../shared/queries'
import { useMe } from '../household/queries'
import { useShelf } from './queries'

const { data: albums, error } = useShelf()
const { data: me } = useMe()
const making = ref(false)
/** Whoever leaves comes back with another invitation only: that is asked about. */
const leaving = ref<AlbumSummary | null>(null)
const putAway = ref<AlbumSummary | null>(null)
const notices = useNotices()
const client = useQueryClient()

async function away(album: AlbumSummary) {
  if (album.role !== 'owner') {
    leaving.value = album
    return
  }
  try {
    await answer(api.POST('/api/albums/{id}/put-away', { params: { path: { id: album.id } } }))
    putAway.value = album
    await client.invalidateQueries({ queryKey: keys.shelf })
  } catch (refusal) {
    notices.refused(refusal)
  }
}

async function leave() {
  const album = leaving.value
  leaving.value = null
  if (!album) return
  try {
    await answer(api.POST('/api/albums/{albumId}/leave', { params: { path: { albumId: album.id } } }))
    await client.invalidateQueries({ queryKey: keys.shelf })
    notices.done(`Left “${album.name}”.`)
  } catch (refusal) {
    notices.refused(refusal)
  }
}

async function bringBack() {
  const album = putAway.value
  if (!album) return
  try {
    await answer(api.POST('/api/albums/{id}/bring-back', { params: { path: { id: album.id } } }))
    putAway.value = null
    await client.invalidateQueries({ queryKey: keys.shelf })
    notices.done(`“${album.name}” is back on the shelf.`)
  } catch (refusal) {
    notices.refused(refusal)
  }
}
</script>

<template>
  <main class="shelf container py-5">
    <header class="d-flex align-items-end justify-content-between mb-4 flex-wrap gap-3">
      <div>
        <h1 class="mb-1"><img src="/favicon.svg" alt="" width="44" height="44" class="me-2" />Zesty Pocket</h1>
        <p class="visually-quiet mb-0">
          Pocket-page albums by the week, the day or the hour: gather, tell, place, print.
        </p>
      </div>
      <span class="d-flex gap-2 align-items-center">
        <RouterLink v-if="me?.state === 'signedIn'" to="/account" class="btn btn-outline-dark">{{
          me.name
        }}</RouterLink>
        <ThemeSwitch />
        <BButton variant="primary" size="lg" @click="making = true">New album</BButton>
      </span>
    </header>

    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p v-if="putAway" class="panel border rounded p-3" role="status">
      “{{ putAway.name }}” is put away; nothing in it is lost.
      <button type="button" class="btn btn-sm btn-outline-dark ms-2" @click="bringBack">Undo</button>
    </p>

    <p v-if="albums && albums.length === 0" class="panel border rounded p-4" data-testid="empty-shelf">
      The shelf is empty. Make an album: a name, its first day, and the page protectors you use. Then drop a folder of
      photos on it.
    </p>

    <ul class="tiles list-unstyled">
      <li v-for="(album, i) in albums" :key="album.id" :class="{ first: i === 0 }">
        <DamagedTile v-if="album.problem" :album="album" @away="away(album)" />
        <AlbumTile v-else :album="album" :large="i === 0" @away="away(album)" />
      </li>
    </ul>
    <BModal
      :model-value="leaving !== null"
      title-tag="h2"
      title-class="h5 mb-0"
      title="Leave this album?"
      ok-title="Leave album"
      ok-variant="primary"
      cancel-title="Stay"
      cancel-variant="outline-dark"
      @ok="leave"
      @hidden="leaving = null"
    >
      “{{ leaving?.name }}” stays with {{ leaving?.owner }}. You come back with another invitation only.
    </BModal>
    <NewAlbumDialog v-model="making" />
  </main>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(21rem, 100%), 1fr));
  gap: 1.4rem;
  align-items: start;
}
@media (min-width: 1000px) {
  .first {
    grid-column: span 2;
    grid-row: span 2;
  }
}
</style>
