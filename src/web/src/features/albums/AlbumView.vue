<script setup lang="ts">
import AlbumDesk from './AlbumDesk.vue'
import { useAlbum } from './queries'
import ReaderView from './ReaderView.vue'

/** An album as whoever opened it may see it: the desk of its editors, or its pages for its readers. */
const props = defineProps<{ albumId: string; scope?: string; tab?: string; room?: string }>()
const { data: album, error } = useAlbum(() => props.albumId)
</script>

<template>
  <main v-if="error && !album" class="container py-5">
    <h1 class="h3">Album</h1>
    <p class="warning-chip" role="alert">! {{ error.message }}</p>
    <RouterLink to="/" class="btn btn-outline-dark">Back to the shelf</RouterLink>
  </main>
  <ReaderView v-else-if="album?.role === 'reader'" :album="album" />
  <AlbumDesk v-else-if="album" v-bind="props" />
</template>
