<script setup lang="ts">
/** Says that what was typed stands here alone, with a way to send it again or to give it up. */
defineProps<{ failed: boolean }>()
const emit = defineEmits<{ again: []; discard: [] }>()
</script>

<template>
  <p v-if="failed" class="warning-chip d-flex flex-wrap gap-2 align-items-center my-1" role="alert">
    ! Not saved yet: it was refused, or somebody has changed the same meanwhile. What you typed is kept here.
    <BButton size="sm" variant="outline-dark" @click="emit('again')">Save mine</BButton>
    <BButton size="sm" variant="outline-dark" @click="emit('discard')">Discard mine</BButton>
  </p>
</template>
