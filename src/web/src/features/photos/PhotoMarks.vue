<script setup lang="ts">
import type { PhotoView } from '../../api/client'

defineProps<{ photo: PhotoView }>()
</script>

<template>
  <span class="marks" aria-hidden="true">
    <span v-if="photo.verdict === 'keep'" class="mark keep" title="keep">✓</span>
    <span v-else-if="photo.verdict === 'maybe'" class="mark maybe" title="maybe">?</span>
    <span v-else-if="photo.verdict === 'leave'" class="mark leave" title="left out">×</span>
    <span v-if="photo.favourite" class="mark stars">{{ '★'.repeat(photo.favourite) }}</span>
    <span v-if="photo.suggestedBest" class="mark best" title="suggested best of its group">best?</span>
    <span v-else-if="photo.groupId" class="mark alike" title="one of several alike">≈</span>
  </span>
</template>

<style scoped>
.marks {
  position: absolute;
  left: 3px;
  top: 3px;
  display: flex;
  gap: 2px;
  flex-wrap: wrap;
  pointer-events: none;
}
.mark {
  padding: 0 0.3em;
  border-radius: 0.3em;
  background: rgb(43 38 34 / 0.82);
  color: #fff;
  font-size: 0.72rem;
  line-height: 1.35;
  font-weight: 600;
}
.keep {
  background: #22613a;
}
.maybe {
  background: #7a5a00;
}
.leave {
  background: var(--warn-solid);
}
.best {
  background: var(--zest);
}
</style>
