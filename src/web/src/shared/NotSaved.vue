<script setup lang="ts">
/** Says that what was typed stands here alone, with a way to send it again or to give it up. */
defineProps<{ failed: boolean }>()
const emit = defineEmits<{ again: []; discard: [] }>()
</script>

<template>
  <p v-if="failed" class="warning-chip d-flex flex-wrap gap-2 align-items-center my-1" role="alert">
    ! Not saved yet. What you typed is kept in this window.
    <BButton size="sm" variant="outline-dark" @click="emit('again')">Save again</BButton>
    <BButton size="sm" variant="outline-dark" @click="emit('discard')">Discard</BButton>
  </p>
</template>
