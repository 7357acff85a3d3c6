<script setup lang="ts">
import { computed } from 'vue'
import type { Asked } from './preview'

/** What changes sides, before it happens. */
const asked = defineModel<Asked | null>({ required: true })
const open = computed({
  get: () => asked.value !== null,
  set: (value) => {
    if (!value) asked.value = null
  },
})
</script>

<template>
  <BModal v-model="open" title-tag="h2" title-class="h5 mb-0" title="Before it happens" no-footer>
    <template v-if="asked">
      <p>{{ asked.done }}. With it:</p>
      <ul class="changes" data-testid="changes" tabindex="0" aria-label="What changes">
        <li v-for="change in asked.changes" :key="change">{{ change }}</li>
      </ul>
      <div class="d-flex justify-content-end gap-2">
        <BButton variant="outline-dark" @click="asked = null">Cancel</BButton>
        <BButton variant="primary" @click="asked.go()">Apply</BButton>
      </div>
    </template>
  </BModal>
</template>

<style scoped>
.changes {
  max-height: 45vh;
  overflow-y: auto;
}
</style>
