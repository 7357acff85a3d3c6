<script setup lang="ts">
import { counted } from '../../shared/words'
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, api, type AlbumSummary } from '../../api/client'
import { useNotices } from '../../shared/notices'
import NewAlbumDialog from './NewAlbumDialog.vue'
import { keys } from '../../shared/queries'
import { useShelf } from './queries'

const { data: albums, error } = useShelf()
const unitWords = { weekly: 'weeks', trip: 'travel days', documentedDay: 'hours', countdown: 'days' }
const making = ref(false)
const putAway = ref<AlbumSummary | null>(null)
const notices = useNotices()
const client = useQueryClient()

async function away(album: AlbumSummary) {
  try {
    await answer(api.POST('/api/albums/{id}/put-away', { params: { path: { id: album.id } } }))
    putAway.value = album
    await client.invalidateQueries({ queryKey: keys.shelf })
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
      <BButton variant="primary" size="lg" @click="making = true">New album</BButton>
    </header>

    <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
    <p v-if="putAway" class="panel border rounded p-3" role="status">
      “{{ putAway.name }}” is put away; nothing in it is lost.
      <button type="button" class="btn btn-sm btn-outline-dark ms-2" @click="bringBack">Bring it back</button>
    </p>

    <p v-if="albums && albums.length === 0" class="panel border rounded p-4" data-testid="empty-shelf">
      The shelf is empty. Make an album: a name, its first day, and the page protectors you use. Then drop a folder of
      photos on it.
    </p>

    <ul class="binders list-unstyled">
      <li v-for="album in albums" :key="album.id" class="binder">
        <RouterLink :to="{ name: 'album', params: { albumId: album.id } }" class="binder-link">
          <span class="display-face binder-name">{{ album.name }}</span>
          <span>{{ album.span }}</span>
          <span class="visually-quiet"
            >{{ album.units }} {{ unitWords[album.kind] }} · {{ counted(album.photos, 'photo') }} · pages
            {{ album.body }}</span
          >
        </RouterLink>
        <button
          type="button"
          class="btn btn-sm btn-link binder-away"
          :aria-label="`Put “${album.name}” away`"
          @click="away(album)"
        >
          Put away
        </button>
      </li>
    </ul>
    <NewAlbumDialog v-model="making" />
  </main>
</template>

<style scoped>
.binders {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 1.25rem;
}
.binder {
  position: relative;
  background: var(--card);
  border: 1px solid var(--line);
  border-left: 14px solid var(--zest-bright);
  border-radius: 0.5rem;
  box-shadow: 0 2px 6px rgb(60 40 20 / 0.12);
}
.binder-link {
  display: flex;
  flex-direction: column;
  gap: 0.2rem;
  padding: 1.1rem 1.2rem 2.6rem;
  color: inherit;
  text-decoration: none;
}
.binder-name {
  font-size: 1.35rem;
}
.binder-link:hover .binder-name {
  text-decoration: underline;
}
.binder-away {
  position: absolute;
  right: 0.5rem;
  bottom: 0.4rem;
  color: var(--ink-soft);
}
</style>
