<script setup lang="ts">
import { ref, watch } from 'vue'

/** A short text, such as a length, that counts when it is finished; nothing replaces it while a hand is in it. */
const props = defineProps<{ modelValue: string }>()
const emit = defineEmits<{ 'update:modelValue': [text: string] }>()
const text = ref(props.modelValue)
const writing = ref(false)
watch(
  () => props.modelValue,
  (now) => {
    if (!writing.value) text.value = now
  },
)

function finish() {
  if (writing.value && text.value !== props.modelValue) emit('update:modelValue', text.value)
  writing.value = false
}
</script>

<template>
  <input
    v-model="text"
    class="form-control form-control-sm"
    @input="writing = true"
    @change="finish"
    @blur="writing = false"
  />
</template>
