<script setup lang="ts">
import type { StashItemView } from '../../../api/client'

/** An item of the stash in a list: its picture or colours, what it is, who has it. */
defineProps<{ item: StashItemView; reason?: string }>()
</script>

<template>
  <li class="item" :data-testid="`stash-${item.name}`">
    <img v-if="item.picture" :src="item.picture" :alt="`${item.name}: ${item.colourNames}`" loading="lazy" />
    <span v-else class="colours" role="img" :aria-label="item.colourNames || 'No colours yet'">
      <span v-for="c in item.colours" :key="c" :style="{ background: c }"></span>
    </span>
    <div class="flex-grow-1">
      <strong>{{ item.name }}</strong>
      <span v-if="item.entry.kit" class="visually-quiet ms-2">{{ item.entry.kit }}</span>
      <div class="small">{{ item.words }}</div>
      <div v-if="reason" class="small">{{ reason }}</div>
      <div v-for="c in item.claims" :key="c.unitId" class="small visually-quiet">
        {{ c.unit }}:
        {{ [c.reserved ? `${c.reserved} reserved` : '', c.used ? `${c.used} used` : ''].filter((x) => x).join(', ') }}
      </div>
    </div>
    <div class="d-flex flex-wrap gap-1 justify-content-end"><slot /></div>
  </li>
</template>

<style scoped>
.item {
  display: flex;
  align-items: center;
  gap: 0.75rem;
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.item:last-child {
  border-bottom: 0;
}
img,
.colours {
  flex: 0 0 3.25rem;
  width: 3.25rem;
  height: 3.25rem;
  object-fit: contain;
}
.colours {
  display: flex;
  border: 1px solid var(--line);
  background: var(--paper);
}
.colours > span {
  flex: 1;
}
</style>
