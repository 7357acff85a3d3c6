<script setup lang="ts">
import { ref } from 'vue'
import type { AlbumView } from '../../api/client'
import ThemeSwitch from '../../shared/ThemeSwitch.vue'
import CompanyBar from '../household/CompanyBar.vue'
import ReadingRoom from '../lookingOver/ReadingRoom.vue'

/** Somebody else's album for whoever reads it: its pages, and a word about them. */
const props = defineProps<{ album: AlbumView }>()
const unitId = ref(props.album.units[0]?.id ?? '')
</script>

<template>
  <div class="desk">
    <header class="top">
      <RouterLink to="/" class="home" aria-label="Back to the shelf"
        ><img src="/favicon.svg" alt="" width="28" height="28"
      /></RouterLink>
      <h1 class="album-name">{{ album.name }}</h1>
      <span class="ms-auto"></span>
      <CompanyBar :album="album" :unit-id="unitId" />
      <ThemeSwitch />
    </header>
    <main class="desk-body">
      <ReadingRoom
        :album="album"
        :unit-ids="album.units.map((u) => u.id)"
        whole
        reader
        @seen="(id: string) => (unitId = id)"
      />
    </main>
  </div>
</template>
