<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core'
import { computed, watch } from 'vue'
import { useNotices } from './notices'

const notices = useNotices()

// What was done fades by itself; a refusal stays until it is read and closed.
const shownFor = computed(() => (notices.notice?.undo ? 12_000 : 5_000))
const fading = useTimeoutFn(() => notices.dismiss(), shownFor, { immediate: false })
watch(
  () => notices.notice,
  (notice) => {
    fading.stop()
    if (notice?.kind === 'done') fading.start()
  },
)

function undo() {
  const step = notices.notice?.undo
  notices.dismiss()
  void step?.()
}
</script>

<template>
  <div class="status-line" aria-live="polite" role="status">
    <BToast
      v-if="notices.notice"
      :model-value="true"
      no-progress
      no-fade
      no-close-button
      class="status-note"
      :class="notices.notice.kind"
      body-class="status-body"
      data-testid="notice"
    >
      <span> <strong v-if="notices.notice.kind === 'refused'">Not done. </strong>{{ notices.notice.text }} </span>
      <BButton
        v-if="notices.notice.undo"
        size="sm"
        variant="outline-light"
        class="status-undo"
        data-testid="notice-undo"
        @click="undo"
        >Undo</BButton
      >
      <BCloseButton class="btn-close-white" aria-label="Close this message" @click="notices.dismiss()" />
    </BToast>
  </div>
</template>
