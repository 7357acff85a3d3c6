<script setup lang="ts">
defineProps<{ done: number; total: number; label: string }>()
</script>

<template>
  <div
    class="progress"
    role="progressbar"
    :aria-label="label"
    aria-valuemin="0"
    :aria-valuemax="total"
    :aria-valuenow="done"
  >
    <div class="progress-bar" :style="{ width: `${total ? (100 * done) / total : 0}%` }"></div>
  </div>
</template>

<style scoped>
.progress {
  height: 1.1rem;
}
.progress-bar {
  background-color: var(--zest);
}
</style>
