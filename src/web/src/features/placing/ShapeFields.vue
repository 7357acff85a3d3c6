<script setup lang="ts">
import type { UnitView } from '../../api/client'
import { across, down, type WrittenShape } from './compose'
import { shapes } from './finish'
import TypedInput from '../../shared/TypedInput.vue'
import PatternSelect from './PatternSelect.vue'

/** One shape of a composition: its form, place, size, and what it holds. */
defineProps<{ shape: WrittenShape; number: number; unit: UnitView }>()
const emit = defineEmits<{ change: [changes: Partial<WrittenShape>]; remove: [] }>()
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <fieldset class="shape">
    <legend class="form-label fs-6 mb-1">Shape {{ number }}</legend>
    <div class="grid">
      <label :for="`form-${number}`">Form</label>
      <BFormSelect
        :id="`form-${number}`"
        size="sm"
        :model-value="shape.shape"
        @update:model-value="emit('change', { shape: $event as WrittenShape['shape'] })"
      >
        <option v-for="s in shapes" :key="s.shape" :value="s.shape">{{ s.name }}</option>
      </BFormSelect>
      <label :for="`across-${number}`">Place</label>
      <span class="pair">
        <BFormSelect
          :id="`across-${number}`"
          size="sm"
          :model-value="shape.across"
          @update:model-value="emit('change', { across: $event as WrittenShape['across'] })"
        >
          <option v-for="a in across" :key="a.place" :value="a.place">{{ a.name }}</option>
        </BFormSelect>
        <BFormSelect
          size="sm"
          :aria-label="`How far down shape ${number} stands`"
          :model-value="shape.down"
          @update:model-value="emit('change', { down: $event as WrittenShape['down'] })"
        >
          <option v-for="d in down" :key="d.place" :value="d.place">{{ d.name }}</option>
        </BFormSelect>
      </span>
      <label :for="`width-${number}`">Size</label>
      <span class="pair">
        <TypedInput
          :id="`width-${number}`"
          :model-value="shape.width"
          @update:model-value="emit('change', { width: $event })"
        />
        <TypedInput
          :aria-label="`Height of shape ${number}`"
          :model-value="shape.height"
          @update:model-value="emit('change', { height: $event })"
        />
      </span>
      <label :for="`photo-${number}`">Picture</label>
      <BFormSelect
        :id="`photo-${number}`"
        size="sm"
        :model-value="shape.photoId ?? ''"
        @update:model-value="emit('change', { photoId: ($event as string) || null })"
      >
        <option value="">none</option>
        <option v-for="p in unit.photos" :key="p.id" :value="p.id">{{ p.fileName }}</option>
      </BFormSelect>
      <label :for="`words-of-${number}`">Words</label>
      <textarea
        :id="`words-of-${number}`"
        class="form-control form-control-sm"
        rows="2"
        maxlength="20000"
        :value="shape.words ?? ''"
        @input="emit('change', { words: text($event) })"
      ></textarea>
      <label :for="`ground-${number}`">Ground</label>
      <span class="pair">
        <PatternSelect
          :id="`ground-${number}`"
          :album-id="unit.albumId"
          none="colour"
          :model-value="shape.styleKey"
          @update:model-value="emit('change', { styleKey: $event ?? null })"
        />
        <input
          type="color"
          class="form-control form-control-sm form-control-color"
          :aria-label="`Colour of shape ${number}`"
          :value="shape.colour ?? '#ffffff'"
          @change="emit('change', { colour: text($event) })"
        />
      </span>
      <label :for="`mat-of-${number}`">Mat shows</label>
      <span class="pair">
        <TypedInput
          :id="`mat-of-${number}`"
          placeholder="none, or 1/8 in"
          :model-value="shape.matReveal ?? ''"
          @update:model-value="emit('change', { matReveal: $event.trim() || null })"
        />
        <input
          type="color"
          class="form-control form-control-sm form-control-color"
          :aria-label="`Colour of the mat of shape ${number}`"
          :value="shape.matColour ?? '#ffffff'"
          @change="emit('change', { matColour: text($event) })"
        />
      </span>
    </div>
    <button
      type="button"
      class="btn btn-sm btn-link px-0"
      :aria-label="`Delete shape ${number}`"
      @click="emit('remove')"
    >
      Delete
    </button>
  </fieldset>
</template>

<style scoped>
.shape {
  border-top: 1px solid var(--line);
  padding-top: 0.5rem;
  margin-top: 0.5rem;
}
.grid {
  position: relative;
  display: grid;
  grid-template-columns: 5rem minmax(0, 1fr);
  gap: 0.3rem 0.5rem;
  align-items: center;
}
.pair {
  display: flex;
  gap: 0.3rem;
}
.form-control-color {
  flex: none;
  width: 2.4rem;
  padding: 0.2rem;
}
</style>
