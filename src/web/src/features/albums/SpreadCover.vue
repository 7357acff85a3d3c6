<script setup lang="ts">
/** A spread as it lies in the album, small: the cover of an album, a tile of its contact sheet. */
defineProps<{ unitId: string; title: string; revision?: number }>()
</script>

<template>
  <img
    class="spread-cover"
    :src="`/api/units/${unitId}/cover.png${revision === undefined ? '' : `?revision=${revision}`}`"
    :alt="`The pages of ${title}`"
    loading="lazy"
  />
</template>

<style scoped>
.spread-cover {
  max-width: 100%;
  max-height: 100%;
  min-height: 0;
  object-fit: contain;
  filter: drop-shadow(0 2px 5px rgb(0 0 0 / 0.35));
}
</style>
