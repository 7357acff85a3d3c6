<script setup lang="ts">
import ThemeSwitch from './ThemeSwitch.vue'

/** The head of every screen of an album: home, its name, undo, redo, whatever the screen adds, and the keys. */
defineProps<{ name?: string; undo?: string | null; redo?: string | null; where: string }>()
defineEmits<{ rename: []; back: []; again: []; keys: [] }>()
</script>

<template>
  <header class="top">
    <RouterLink to="/" class="home" aria-label="Back to the shelf"
      ><img src="/favicon.svg" alt="" width="28" height="28"
    /></RouterLink>
    <h1 class="album-name">{{ name ?? 'Album' }}</h1>
    <button
      v-if="name"
      type="button"
      class="btn btn-sm btn-link rename roomy-only"
      aria-label="Rename the album"
      title="Rename the album"
      @click="$emit('rename')"
    >
      ✎
    </button>
    <span class="ms-auto"></span>
    <button
      type="button"
      class="btn btn-sm btn-outline-dark"
      :disabled="!undo"
      :title="undo ? `Undo: ${undo}` : `Nothing to undo ${where}`"
      data-testid="undo"
      @click="$emit('back')"
    >
      <span aria-hidden="true">↶</span><span class="roomy"> Undo</span>
    </button>
    <button
      type="button"
      class="btn btn-sm btn-outline-dark"
      :disabled="!redo"
      :title="redo ? `Redo: ${redo}` : `Nothing to redo ${where}`"
      data-testid="redo"
      @click="$emit('again')"
    >
      <span aria-hidden="true">↷</span><span class="roomy"> Redo</span>
    </button>
    <slot />
    <ThemeSwitch />
    <button type="button" class="btn btn-sm btn-outline-dark" aria-label="Keyboard shortcuts" @click="$emit('keys')">
      ?
    </button>
  </header>
</template>

<style scoped>
.rename {
  padding: 0 0.3rem;
  color: var(--ink-soft);
  text-decoration: none;
}
</style>
