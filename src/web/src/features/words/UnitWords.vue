<script setup lang="ts">
import { useUnit } from '../placing/unit'
import TellTab from './TellTab.vue'

/** The words of one unit among several. */
const props = defineProps<{ unitId: string }>()
const { unit, error, edit } = useUnit(() => props.unitId)
</script>

<template>
  <p v-if="error" class="warning-chip" role="alert">{{ error.message }}</p>
  <TellTab v-if="unit" :unit="unit" :edit="edit" among />
</template>
