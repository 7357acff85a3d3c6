<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue'
import { tourSteps, useTour } from './tour'

/** Four steps around the desk, for whoever sees it for the first time; can be skipped and found again. */
const { step, startOnce, end } = useTour()
const current = computed(() => tourSteps[step.value])
const body = useTemplateRef('body')
const open = computed({
  get: () => step.value >= 0,
  set: (on) => {
    if (!on) end()
  },
})

const clear = () => document.querySelectorAll('.tour-target').forEach((e) => e.classList.remove('tour-target'))

watch(
  step,
  async () => {
    await nextTick()
    clear()
    if (current.value) document.querySelector(current.value.target)?.classList.add('tour-target')
    body.value?.focus()
  },
  { immediate: true },
)
onMounted(startOnce)
onBeforeUnmount(clear)
</script>

<template>
  <!-- The desk behind it stays usable: no backdrop, no trap. -->
  <BOffcanvas
    id="tour"
    v-model="open"
    class="tour"
    placement="bottom"
    no-backdrop
    no-trap
    body-scrolling
    lazy
    unmount-lazy
    no-header-close
  >
    <template #header>
      <h2 id="tour-offcanvas-label" class="h6 mb-0">{{ current?.title }}</h2>
    </template>
    <div v-if="current" ref="body" tabindex="-1">
      <p class="small visually-quiet mb-1">Tour, step {{ step + 1 }} of {{ tourSteps.length }}</p>
      <p>{{ current.words }}</p>
    </div>
    <div class="d-flex gap-2">
      <BButton size="sm" variant="link" class="me-auto px-0" @click="end">Skip the tour</BButton>
      <BButton v-if="step > 0" size="sm" variant="outline-dark" @click="step--">Back</BButton>
      <BButton v-if="step < tourSteps.length - 1" size="sm" variant="primary" @click="step++">Next</BButton>
      <BButton v-else size="sm" variant="primary" @click="end">Start</BButton>
    </div>
  </BOffcanvas>
</template>

<style>
.offcanvas.tour {
  inset: auto 1rem 1rem auto;
  width: min(24rem, calc(100vw - 2rem));
  height: auto;
  border: 2px solid var(--zest);
  border-radius: 0.7rem;
  background: var(--card);
  color: var(--ink);
  box-shadow: 0 8px 26px rgb(40 25 10 / 0.3);
}
</style>
