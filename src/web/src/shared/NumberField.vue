<script setup lang="ts">
/** A number with its label and its bounds. */
defineProps<{ id: string; label: string; min: number; max: number; step?: number }>()
const value = defineModel<number>({ required: true })
</script>

<template>
  <div>
    <label :for="id" class="form-label mb-0">{{ label }}</label>
    <input
      :id="id"
      v-model.number="value"
      type="number"
      :min="min"
      :max="max"
      :step="step ?? 1"
      class="form-control form-control-sm number"
    />
  </div>
</template>

<style scoped>
.number {
  width: 6rem;
}
</style>
