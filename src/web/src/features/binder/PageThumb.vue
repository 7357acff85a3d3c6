<script setup lang="ts">
import type { DesignView } from '../../api/client'

defineProps<{ design: Pick<DesignView, 'bodyWidth' | 'bodyHeight' | 'pockets'>; height?: number }>()
</script>

<template>
  <svg
    :viewBox="`0 0 ${design.bodyWidth} ${design.bodyHeight}`"
    :height="height ?? 84"
    class="page-thumb"
    data-bs-theme="light"
    aria-hidden="true"
  >
    <rect
      v-for="pocket in design.pockets"
      :key="pocket.key"
      :x="pocket.x + 90000"
      :y="pocket.y + 90000"
      :width="pocket.width - 180000"
      :height="pocket.height - 180000"
      rx="90000"
    />
  </svg>
</template>

<style scoped>
.page-thumb {
  background: #fff;
  border: 1px solid #8b8072;
  border-radius: 3px;
}
.page-thumb rect {
  fill: #dfe6ea;
  stroke: #7d929e;
  stroke-width: 40000;
}
</style>
