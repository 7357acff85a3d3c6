<script setup lang="ts">
import { computed, ref } from 'vue'
import type { UnitView } from '../../api/client'
import type { Edit } from '../placing/unit'

const props = defineProps<{ unit: UnitView; day: string; edit: (change: Edit) => Promise<unknown> }>()
const notes = computed(() => props.unit.notes.filter((n) => n.day === props.day))
const writing = ref(false)
const text = ref('')

async function write() {
  if (!text.value.trim()) return
  await props.edit({ kind: 'writeNote', note: { id: null, day: props.day, time: null, text: text.value } })
  text.value = ''
  writing.value = false
}
</script>

<template>
  <ul v-if="notes.length" class="notes" aria-label="Notes of the day">
    <li v-for="note in notes" :key="note.id">
      <span
        ><span v-if="note.time" class="visually-quiet">{{ note.time }}</span> {{ note.text }}</span
      >
      <button
        type="button"
        class="drop-note"
        :aria-label="`Throw the note “${note.text}” away`"
        @click="edit({ kind: 'dropNote', noteId: note.id })"
      >
        ×
      </button>
    </li>
  </ul>
  <form v-if="writing" class="d-flex gap-1 mb-2" @submit.prevent="write">
    <input
      v-model="text"
      class="form-control form-control-sm"
      maxlength="2000"
      aria-label="A note for this day"
      @keydown.esc="writing = false"
    />
    <button type="submit" class="btn btn-sm btn-outline-dark">Note</button>
  </form>
  <button v-else type="button" class="add-note" @click="writing = true">+ note</button>
</template>

<style scoped>
.notes {
  list-style: none;
  margin: 0 0 0.25rem;
  padding: 0;
  font-size: 0.82rem;
}
.notes li {
  display: flex;
  justify-content: space-between;
  gap: 0.3rem;
  padding: 0.1rem 0.3rem;
  border-left: 3px solid var(--zest-bright);
  background: var(--zest-pale);
  margin-bottom: 2px;
}
.drop-note,
.add-note {
  border: 0;
  background: none;
  color: var(--ink-soft);
  min-height: 24px;
  min-width: 24px;
  line-height: 1;
}
.add-note {
  font-size: 0.8rem;
  padding: 0 0.2rem;
}
</style>
