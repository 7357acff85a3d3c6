<script setup lang="ts">
import { computed } from 'vue'
import type { BulkView } from '../../api/client'

/** Where thick things lie on top of each other, seen from the front: the rings are at the left. */
const props = defineProps<{ bulk: BulkView; name: string }>()
const rows = computed(() => props.bulk.millimetres.length / props.bulk.columns)
const most = computed(() => Math.max(0.01, ...props.bulk.millimetres))
const least = computed(() => Math.min(...props.bulk.millimetres))
const shade = (mm: number) => (most.value - least.value < 0.01 ? 0.15 : (mm - least.value) / (most.value - least.value))
</script>

<template>
  <figure class="m-0">
    <svg
      shape-rendering="crispEdges"
      :viewBox="`0 0 ${bulk.columns} ${rows}`"
      class="bulk"
      role="img"
      :aria-label="`${name}: from ${least.toFixed(1)} mm to ${most.toFixed(1)} mm thick`"
    >
      <rect :width="bulk.columns" :height="rows" class="paper" />
      <rect
        v-for="(mm, i) in bulk.millimetres"
        :key="i"
        :x="i % bulk.columns"
        :y="Math.floor(i / bulk.columns)"
        width="1"
        height="1"
        class="cell"
        :fill-opacity="0.04 + 0.86 * shade(mm)"
      />
    </svg>
    <figcaption class="small">
      {{ least.toFixed(1) }} mm at the thinnest place, {{ most.toFixed(1) }} mm at the thickest
    </figcaption>
  </figure>
</template>

<style scoped>
.bulk {
  width: 9rem;
  border: 1px solid var(--line);
  border-radius: 3px;
}
.paper {
  fill: #fffdf6;
}
.cell {
  fill: #b4500c;
}
</style>
