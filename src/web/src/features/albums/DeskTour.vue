<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import { tourSteps, useTour } from './tour'

/** Four steps around the desk, for whoever sees it for the first time; can be skipped and found again. */
const { step, startOnce, end } = useTour()
const current = computed(() => tourSteps[step.value])
const panel = useTemplateRef('panel')

const mark = () => {
  document.querySelectorAll('.tour-target').forEach((e) => e.classList.remove('tour-target'))
  if (current.value) document.querySelector(current.value.target)?.classList.add('tour-target')
}

watch(
  step,
  async () => {
    await nextTick()
    mark()
    panel.value?.focus()
  },
  { immediate: true },
)
onMounted(startOnce)
onBeforeUnmount(() => {
  document.querySelectorAll('.tour-target').forEach((e) => e.classList.remove('tour-target'))
})
</script>

<template>
  <section
    v-if="current"
    ref="panel"
    class="tour"
    role="dialog"
    aria-labelledby="tour-title"
    tabindex="-1"
    @keydown.esc="end"
  >
    <p class="small visually-quiet mb-1">Tour, step {{ step + 1 }} of {{ tourSteps.length }}</p>
    <h2 id="tour-title" class="h6">{{ current.title }}</h2>
    <p>{{ current.words }}</p>
    <div class="d-flex gap-2">
      <BButton size="sm" variant="link" class="me-auto px-0" @click="end">Skip the tour</BButton>
      <BButton v-if="step > 0" size="sm" variant="outline-dark" @click="step--">Back</BButton>
      <BButton v-if="step < tourSteps.length - 1" size="sm" variant="primary" @click="step++">Next</BButton>
      <BButton v-else size="sm" variant="primary" @click="end">Start</BButton>
    </div>
  </section>
</template>

<style scoped>
.tour {
  position: fixed;
  right: 1rem;
  bottom: 1rem;
  z-index: 1030;
  width: min(24rem, calc(100vw - 2rem));
  padding: 1rem 1.2rem;
  border: 2px solid var(--zest);
  border-radius: 0.7rem;
  background: var(--card);
  color: var(--ink);
  box-shadow: 0 8px 26px rgb(40 25 10 / 0.3);
}
</style>
