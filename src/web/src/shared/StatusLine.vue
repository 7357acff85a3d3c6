<script setup lang="ts">
import { watch } from 'vue'
import { useNotices } from './notices'

const notices = useNotices()
let timer: ReturnType<typeof setTimeout> | undefined

// What was done fades by itself; a refusal stays until it is read and closed.
watch(
  () => notices.notice,
  (notice) => {
    clearTimeout(timer)
    if (notice?.kind === 'done') timer = setTimeout(() => notices.dismiss(), notice.undo ? 12000 : 5000)
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
    <div v-if="notices.notice" class="status-note" :class="notices.notice.kind" data-testid="notice">
      <span> <strong v-if="notices.notice.kind === 'refused'">Not done. </strong>{{ notices.notice.text }} </span>
      <button v-if="notices.notice.undo" type="button" class="status-undo" data-testid="notice-undo" @click="undo">
        Undo
      </button>
      <button type="button" class="status-close" aria-label="Close this message" @click="notices.dismiss()">×</button>
    </div>
  </div>
</template>
