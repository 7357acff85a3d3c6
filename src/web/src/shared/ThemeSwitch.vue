<script setup lang="ts">
import { useColorMode } from '@vueuse/core'
import { computed } from 'vue'

/** Day or evening; until somebody chooses, as the device has it. */
const mode = useColorMode({ attribute: 'data-bs-theme', storageKey: 'zesty.theme', disableTransition: false })
const evening = computed(() => mode.value === 'dark')
</script>

<template>
  <button
    type="button"
    class="btn btn-sm btn-outline-dark"
    :aria-pressed="evening"
    aria-label="Evening theme"
    title="Evening theme"
    @click="mode = evening ? 'light' : 'dark'"
  >
    {{ evening ? '☾' : '☀' }}
  </button>
</template>
